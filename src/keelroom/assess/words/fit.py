"""How findings of fit are worded."""

from keelroom.assess.words.told import CAUTION, Told

TOLD = {
    "fit_more": Told(
        "{count} more clearances under their rule",
        "The table at Fit-up has them all.",
    ),
    "not_surveyed": Told(
        "The bay is not surveyed yet",
        "Whether the package fits is not known: nothing around it is measured. The tape walk at Survey asks "
        "for it in order.",
    ),
    "fit_unmeasured": Told(
        "{count} {count:measurement is|measurements are} missing or only assumed",
        "{names:first4}. Until they are taken nothing can be said to clear.",
    ),
    "measure_next": Told(
        "Measure next: {reading:low}",
        "{reason:raised}.",
    ),
    "obstacle_in_core": Told(
        "{name} lies inside the core",
        "Its middle is within the core as placed: check the reading and the datum it was taken from, or move the core.",
    ),
    "rails_contradiction": Told(
        "The rails do not add up",
        "Left and right from the datum make {apart}, between them reads {between}. One of the three was "
        "misread, or taken from another datum.",
    ),
    "opening_crosses": Told(
        "The opening's outline crosses itself",
        "The edges after corner {first} and after corner {second} cross. Go round the opening in one "
        "direction; nothing else is lost.",
    ),
    "opening_corners": Told(
        "An opening needs three corners or more",
        "Go round it in one direction, or take the corners out and give width and height.",
    ),
    "readings_differ": Told(
        "{label}: two readings differ by {apart}",
        "First {first}, second {value}; {allowed} would be the tape's own doubt. Take it a third time.",
    ),
    "cut_refused": Told(
        "The {edge} edge is marked no-go: this cut must not be made",
        CAUTION,
    ),
    "cut_stamped": Told(
        "The {edge} edge is stamped: it stiffens the support",
        CAUTION,
    ),
    "cut_checks": Told(
        "{count} cheap checks come before the cut",
        "A cut cannot be taken back. {checks:semicolons}.",
    ),
    "cut_structural": Told(
        "Marked structural near the cut: {names}",
        CAUTION,
    ),
    "bracket_fault": Told(
        "{name}: {fault:low}",
        "As drawn this bracket cannot be made or would not hold; the planner gives the figures.",
    ),
    "through_fins": Told(
        "Fans hang on ties through the fins",
        "Ties through the fins: a stopgap that saws through tubes in time. Steady it so to get home, then "
        "mount it. Zip ties are not a structural mount.",
    ),
    "no_float": Told(
        "The core has no room to grow",
        "Hot it is {grows} longer than cold, its mounts leave {float_gap}: it pushes its own tanks apart. "
        "Let one end slide.",
    ),
    "bolt_in_hole": Told(
        "{name}: {bolt} does not pass the surveyed hole",
        "{hole} is {diameter}.",
    ),
    "ring_fault": Told(
        "Adapter ring: {fault:low}",
        "Another shroud, or a smaller fan.",
    ),
    "pan_fault": Told(
        "Shroud from sheet: {fault:low}",
        "It cannot be folded, or does not seat, as entered; templates and cut list say so.",
    ),
    "trim_fault": Told(
        "{fault}",
        "The ring carries the fan and seals its blades: the shroud would be scrap.",
    ),
    "fans_off_rings": Told(
        "The fans stand {off} from where the shroud's rings are",
        "Trimmed like this the shroud sits elsewhere on the core than the fans are drawn; airflow and "
        "clearances are those of the fans as drawn.",
    ),
    "shroud_proud": Told(
        "The shroud stands {proud} proud of the fins",
        "It is wider than the {seat} between the tanks: it rests on them and leaks all round. Trimmed until "
        "it seats it seals, and gains {proud} at the pump.",
    ),
    "shroud_narrow": Told(
        "The shroud is narrower than the core",
        "{open} of the face stays open beside it: {leak} leak through at the fans' suction.",
    ),
    "join_unmeasured": Told(
        "Two shrouds are to be joined and neither is measured",
        "Width over the flange of each, and what comes off where they meet, give the pan they make.",
    ),
    "join_fans": Told(
        "Two shrouds joined carry two fans; {rings} stand in this one",
        "Each brings its own ring.",
    ),
    "fit_tight": Told(
        "{part} to {other}: clears, but not by more than the tape's doubt",
        "{gap} ± {worst} worst case, ± {likely} likely (root sum of squares); {wanted} wanted. {weakest} "
        "dominates: measure it again.",
    ),
    "fit_tight.even": Told(
        "{part} to {other}: clears, but not by more than the tape's doubt",
        "{gap} ± {worst} worst case, ± {likely} likely (root sum of squares); {wanted} wanted.",
    ),
    "fit_overlaps": Told(
        "{part} and {other}: overlap by {over}",
        "Rule for {rule}: {wanted}. As measured ± {worst} worst case, most of it from {weakest:lower}.",
    ),
    "fit_overlaps.even": Told(
        "{part} and {other}: overlap by {over}",
        "Rule for {rule}: {wanted}. As measured ± {worst} worst case.",
    ),
    "fit_overlaps.hood": Told(
        "{part} and {other}: overlap by {over}",
        "Rule for {rule}: {wanted}. As measured ± {worst} worst case, most of it from {weakest:lower}. A "
        "hood that may touch the package can come open or damage the latch.",
    ),
    "fit_overlaps.hoodeven": Told(
        "{part} and {other}: overlap by {over}",
        "Rule for {rule}: {wanted}. As measured ± {worst} worst case. A hood that may touch the package can "
        "come open or damage the latch.",
    ),
    "fit_under": Told(
        "{part} and {other}: {gap} apart",
        "Rule for {rule}: {wanted}. As measured ± {worst} worst case, most of it from {weakest:lower}.",
    ),
    "fit_under.even": Told(
        "{part} and {other}: {gap} apart",
        "Rule for {rule}: {wanted}. As measured ± {worst} worst case.",
    ),
    "fit_under.hood": Told(
        "{part} and {other}: {gap} apart",
        "Rule for {rule}: {wanted}. As measured ± {worst} worst case, most of it from {weakest:lower}. A "
        "hood that may touch the package can come open or damage the latch.",
    ),
    "fit_under.hoodeven": Told(
        "{part} and {other}: {gap} apart",
        "Rule for {rule}: {wanted}. As measured ± {worst} worst case. A hood that may touch the package can "
        "come open or damage the latch.",
    ),
    "depth_contradiction.smaller": Told(
        "Depth to the block is smaller than the sum of its parts",
        "Plane to pulley {depth} and pulley to block {pulley_stack} make {total}; plane to block reads "
        "{block_depth}. They may differ by {doubt}. One of the three was misread.",
    ),
    "depth_contradiction.larger": Told(
        "Depth to the block is larger than the sum of its parts",
        "Plane to pulley {depth} and pulley to block {pulley_stack} make {total}; plane to block reads "
        "{block_depth}. They may differ by {doubt}. One of the three was misread.",
    ),
    "frame_fault": Told(
        "Frame of angle: {fault:low}",
        "As entered it hangs nothing.",
    ),
    "frame_fault.lap": Told(
        "Frame of angle: {fault:low}",
        "Rows behind metal give no heat.",
    ),
}
