"""How findings of fit are worded."""

from keelroom.assess.words.told import CAUTION, Told

TOLD = {
    "core_over_room.wide": Told(
        "The core with its tanks is wider than the room for it",
        "{size} against {room} between what must stay. A narrower core, or measure again what is in its way.",
        "The core with its tanks is larger than the room for it",
    ),
    "core_over_room.high": Told(
        "The core with its tanks is higher than the room for it",
        "{size} against {room} between what must stay. A lower core, or measure again what is in its way.",
    ),
    "cut_belt_open": Told(
        "A cut is planned with the engine out: belt and pulley are unmeasured",
        "What is cut now for the core is known; how near the fan comes to belt and pulley is not. Cut the smallest "
        "stage first and keep what is behind the core loose until the engine is in.",
        "A cut is planned while belt and pulley are unmeasured",
    ),
    "fit_more": Told(
        "{count} more clearances under their rule",
        "The table at Fit-up has them all.",
        "More clearances under their rule than are listed",
    ),
    "not_surveyed": Told(
        "The bay is not surveyed yet",
        "Whether the package fits is not known: nothing around it is measured. The tape walk at Survey asks "
        "for it in order.",
        "The bay is not surveyed",
    ),
    "fit_unmeasured": Told(
        "{count} {count:measurement is|measurements are} missing or only assumed",
        "{names:first4}. Until they are taken nothing can be said to clear.",
        "Measures the clearances need are missing",
    ),
    "measure_next": Told(
        "Measure next: {reading:low}",
        "{reason:raised}.",
        "The measure that would tell most",
    ),
    "obstacle_in_core": Told(
        "{name} lies inside the core",
        "Its middle is within the core as placed: check the reading and the datum it was taken from, or move the core.",
        "A neighbour lies inside the core",
    ),
    "rails_contradiction": Told(
        "The rails do not add up",
        "Left and right from the datum make {apart}, between them reads {between}. One of the three was "
        "misread, or taken from another datum.",
        "The rails do not add up",
    ),
    "opening_crosses": Told(
        "The opening's outline crosses itself",
        "The edges after corner {first} and after corner {second} cross. Go round the opening in one "
        "direction; nothing else is lost.",
        "The opening's outline crosses itself",
    ),
    "opening_corners": Told(
        "An opening needs three corners or more",
        "Go round it in one direction, or take the corners out and give width and height.",
        "An opening has fewer than three corners",
    ),
    "readings_differ": Told(
        "{label}: two readings differ by {apart}",
        "First {first}, second {value}; {allowed} would be the tape's own doubt. Take it a third time.",
        "Two readings of one measure differ",
    ),
    "cut_refused": Told(
        "The {edge} edge is marked no-go: this cut must not be made",
        CAUTION,
        "A cut at an edge that must not be cut",
    ),
    "cut_stamped": Told(
        "The {edge} edge is stamped: it stiffens the support",
        CAUTION,
        "A cut at a stamped edge",
    ),
    "cut_checks": Told(
        "{count} cheap checks come before the cut",
        "A cut cannot be taken back. {checks:semicolons}.",
        "Checks come before a cut",
    ),
    "cut_structural": Told(
        "Marked structural near the cut: {names}",
        CAUTION,
        "Something structural is near a cut",
    ),
    "bracket_fault": Told(
        "{name}: {fault:low}",
        "As drawn this bracket cannot be made or would not hold; the planner gives the figures.",
        "A bracket cannot be made as entered, or does not hold",
    ),
    "through_fins": Told(
        "Fans hang on ties through the fins",
        "Ties through the fins: a stopgap that saws through tubes in time. Steady it so to get home, then "
        "mount it. Zip ties are not a structural mount.",
        "Fans hang on ties through the fins",
    ),
    "no_float": Told(
        "The core has no room to grow",
        "Hot it is {grows} longer than cold, its mounts leave {float_gap}: it pushes its own tanks apart. "
        "Let one end slide.",
        "The core has no room to grow",
    ),
    "bolt_in_hole": Told(
        "{name}: {bolt} does not pass the surveyed hole",
        "{hole} is {diameter}.",
        "A bolt does not pass its surveyed hole",
    ),
    "ring_fault": Told(
        "Adapter ring: {fault:low}",
        "Another shroud, or a smaller fan.",
        "An adapter ring cannot be made as entered",
    ),
    "pan_fault": Told(
        "Shroud from sheet: {fault:low}",
        "It cannot be folded, or does not seat, as entered; templates and cut list say so.",
        "A shroud from sheet cannot be made as entered",
    ),
    "trim_fault": Told(
        "{fault}",
        "The ring carries the fan and seals its blades: the shroud would be scrap.",
        "A trim of the shroud cannot be cut",
    ),
    "fans_off_rings": Told(
        "The fans stand {off} from where the shroud's rings are",
        "Trimmed like this the shroud sits elsewhere on the core than the fans are drawn; airflow and "
        "clearances are those of the fans as drawn.",
        "Fans stand elsewhere than the rings of their shroud",
    ),
    "shroud_proud": Told(
        "The shroud stands {proud} proud of the fins",
        "It is wider than the {seat} between the tanks: it rests on them and leaks all round. Trimmed until "
        "it seats it seals, and gains {proud} at the pump.",
        "The shroud stands proud of the fins",
    ),
    "shroud_narrow": Told(
        "The shroud is narrower than the core",
        "{open} of the face stays open beside it: {leak} leak through at the fans' suction.",
        "The shroud is narrower than the core",
    ),
    "join_unmeasured": Told(
        "Two shrouds are to be joined and neither is measured",
        "Width over the flange of each, and what comes off where they meet, give the pan they make.",
        "Two shrouds are to be joined and neither is measured",
    ),
    "join_fans": Told(
        "Two shrouds joined carry two fans; {rings} stand in this one",
        "Each brings its own ring.",
        "Two joined shrouds carry two fans, and other than two stand in them",
    ),
    "fit_tight": Told(
        "{part} to {other}: clears, but not by more than the tape's doubt",
        "{gap} ± {worst} worst case, ± {likely} likely (root sum of squares); {wanted} wanted. {weakest} "
        "dominates: measure it again.",
        "A clearance clears by less than the tape's doubt",
    ),
    "fit_tight.even": Told(
        "{part} to {other}: clears, but not by more than the tape's doubt",
        "{gap} ± {worst} worst case, ± {likely} likely (root sum of squares); {wanted} wanted.",
    ),
    "fit_overlaps": Told(
        "{part} and {other}: overlap by {over}",
        "Rule for {rule}: {wanted}. As measured ± {worst} worst case, most of it from {weakest:lower}.",
        "Two bodies overlap",
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
        "A clearance is under its rule",
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
        "The depth to the engine contradicts the sum of its parts",
    ),
    "depth_contradiction.larger": Told(
        "Depth to the block is larger than the sum of its parts",
        "Plane to pulley {depth} and pulley to block {pulley_stack} make {total}; plane to block reads "
        "{block_depth}. They may differ by {doubt}. One of the three was misread.",
    ),
    "frame_fault": Told(
        "Frame of angle: {fault:low}",
        "As entered it hangs nothing.",
        "A frame of angle cannot be made as entered, or does not hold",
    ),
    "frame_fault.lap": Told(
        "Frame of angle: {fault:low}",
        "Rows behind metal give no heat.",
    ),
}
