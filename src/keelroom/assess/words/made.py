"""Clauses of what is made and moved: what cannot be, and what to mind."""

from __future__ import annotations

MADE = {
    "no_room_arch": "No room for the arch: it needs {short} more between the bump and the {hole} hole",
    "no_room_offset": "No room for its bends: an offset of {offset} is less than two bends of {radius} radius take; "
    "pack it "
    "with washers or take a smaller radius",
    "bump_low": "The bump is no higher than two bends take: pack the strap with washers instead",
    "pitch_short": "Its holes are {pitch} apart; holes of {near} need {wanted}",
    "same_point": "Its two ends are the same point: choose another",
    "no_room_run": "No room for its bends: the holes are {run} apart along the face, two bends clear of both holes "
    "need "
    "{need}",
    "no_room_leg": "No room for its bend: the {which} hole is {leg} from the corner, the bend and the hole's edge need "
    "{need}",
    "hole_near_edge": "The hole is {have} from the strip's {of}; a {biggest} hole needs at least {least}",
    "hole_off_metal": "The hole runs off the metal: it is {have} from the strip's {of}; a {biggest} hole needs at "
    "least {least}",
    "rib_short": "No flat long enough for its rib: {long} clear of holes and bends, it needs {wanted}",
    "lips_crack": "{name} at {thickness} cracks under an inside radius of {least}: its lips are made as pieces of "
    "their "
    "own and welded",
    "lips_thick": "{name} this thick has cracked when bent to 90° in one piece: its lips are made as pieces of "
    "their own "
    "and welded",
    "bead_low": "A bead {height} high stiffens nothing: {wanted} at least, or 0",
    "notch_narrows": "A piece that narrows takes no rail notches: cut them in the car",
    "notch_through": "The rail notches cut it through: {depth} in from each end and {width} wide",
    "holes_off_lap": "The {mark} holes run off the lap: {lap} of metal round the hole, they need {least}",
    "lip_short": "No room for the {lip} lip’s bend: {size} wide, it needs {least}",
    "holes_off_lip": "The {mark} holes run off the {lip} lip: {diameter} holes in {size} of metal",
    "too_many_holes": "{many} {mark} holes do not go into {wide}",
    "bead_no_length": "The bead has no length left between its ends",
    "notch_in_bend": "The rail notch runs into the front bend; it begins {setback} behind it at the least",
    "notch_in_bead": "The rail notch cuts through the bead: the bead begins {nearest} from the end, the notch goes "
    "{depth} in",
    "holes_near_lip": "The {mark} holes are {room} from the {lip} lip’s edge; {wanted} at least",
    "rings_meet": "Their rings would run into each other: trim less where they meet",
    "lap_short": "A lap of {lap} takes no row of rivets: {wanted}, or edge to edge with a strip behind",
    "nothing_left_of_one": "Nothing would be left of one of them",
    "join_cuts_ring": "The trim where they meet runs through the ring of fan {number}; keep {web} of web beside it",
    "join_near_ring": "The trim where they meet leaves {left} at the ring of fan {number}; keep {web} of web beside it",
    "plate_edge": "Its holes are {margin} from the plate’s edge; {least} at least",
    "holes_meet": "The {first} and the {second} hole run into each other: {apart} apart. Move one, or weld the old "
    "one shut",
    "nothing_left": "Nothing would be left of the shroud",
    "proud_of_fins": "It stands on the tanks, {proud} proud of the fins: trim until it seats between them",
    "ears": "Ears and tabs stand {ears} beyond the flange: take them off flush first",
    "bolts_gone": "Bolt {numbers:hole|holes} {numbers:.0f} {numbers:is|are} cut away: drill anew {diameter} from "
    "the new "
    "edge",
    "bolts_near": "Bolt {numbers:hole|holes} {numbers:.0f} {numbers:is|are} left {least} from the edge, under 1.5 "
    "diameters: drill anew",
    "pan_cracks": "{name} at {thickness} cracks under an inside radius of {least}; this one is bent at {radius}",
    "blank_large": "The blank is {flat} by {flat_high}, larger than the sheet of {sheet} by {sheet_high}",
    "made_in_two": "Made as a flat face and a rim, joined: no bend in the face",
    "pan_shallow": "No room for its bends: a pan {depth} deep has two bends that need {least}",
    "flange_narrow": "No room for the flange's bend: {flange} wide, it needs {least}",
    "strut_loose": "Strut {number} loses its foot: it has to be fixed anew to the trimmed edge",
    "pan_thick": "{name} this thick has cracked when bent to 90° in one piece; it was made as two welded pieces",
    "opening_in_fold": "Fan opening {number} runs into the fold: {room} from the side, it needs {least}",
    "trim_cuts_ring": "The {side} trim line runs through the ring of fan {number}; keep {web} of web beside it",
    "trim_near_ring": "The {side} trim line leaves {left} at the ring of fan {number}; keep {web} of web beside it",
    "openings_near": "Two fan openings leave less than {web} between them",
    "hose_kinks_at": "A hose of {bore} bore kinks at {tightest}: {least} is its least radius",
    "needs_width": "It needs {wide} of width with its fittings and {high} of height",
    "air_out": "Its air goes out through {slot:.0%} of its face behind it",
    "ground_unknown": "Height of the datum above the ground is not measured: kerbs and stones cannot be judged",
    "stones": "Nothing ahead of it keeps stones and brush off: a mesh costs 1–2 of its dynamic heads",
    "spacer_small": "Spacers of {spacer} leave the air no way out behind it; {wanted} does",
    "side_room_small": "{have} at each side; {wanted} is wanted",
    "fitting_room": "A hose with this fitting takes {need} beyond the side, there is {have}",
    "fitting_room.elbow": "A hose with this fitting takes {need} beyond the side, there is {have}; a 90° elbow "
    "takes {least}",
    "ground_clear": "{clear} above the ground",
    "ground_low": "{clear} above the ground; {least} is the least on the road",
    "rows_exposed": "All rows are exposed",
    "line_holes": "Line holes of {hole}, grommet included, do not go into the {leg} leg: pass the lines beside it",
    "frame_on_core": "Hung on the core's own mount bolts: no new hole in the support",
    "frame_hung": "Hung by {count} brackets from its corners",
    "frame_covers": "The angle covers {covered} of the rows at each edge: lap it no further than the {header} edge "
    "without "
    "rows",
    "frame_not_at_core": "The {name} does not stand at the core: brackets from the frame’s corners hang it",
    "frame_few": "{count} brackets go to its corners; {least} at least hold it",
    "carried": "{point}: {how:inside}",
    "carry_template": "Only {behind} free behind it: a marked template from the far face",
    "carry_stud": "Press a paper template over the stud from the far face, mark its middle, drill the bracket to the "
    "template",
    "carry_clamped": "Clamp the bracket in place and drill both at once, once everything it must clear is in",
    "carry_own_hole": "Mark the bracket through the part’s own hole, drill it away from the core",
    "carry_behind": "Drill through it from behind with the bracket held there: {behind} are free",
    "two_nuts": "Two nuts at each part, one from either side, so that it is clamped and not pulled",
    "carry_unknown": "Measure how much is free behind it, a drill needs [3 in|76 mm]; until then a marked template "
    "from the "
    "far face",
    "metal_cracks": "{name} this thick cracks under an inside radius of {least}",
    "hums": "Hums near idle: its {frequency:.0f} Hz lies close to the engine's {firing:.0f} Hz; thicker metal or a "
    "rib moves it up",
    "hums.straight": "Hums near idle: its {frequency:.0f} Hz lies close to the engine's {firing:.0f} Hz; a rib "
    "moves it up",
    "torque": "{name}: at most {torque:torque}, and a panel's bolts in steps so that nothing warps",
    "rib_welded": "Rib: weld it on edge, short runs from side to side so that the strap stays straight; it ends "
    "clear of "
    "bends and holes",
    "tube_square": "Cut the tube square, ends deburred: it stands on its ends",
    "hole_to_end": "The {where} hole is {diameters:.1f} diameters from the end; 2 is better",
    "bends_for_good": "Bends for good at the stated shock: stress {stress:stress} over its {strength:stress}",
    "barely_strong": "Only {safety:.1f} times as strong as the stated shock needs; {safe:.0f} is usual. Thicker or "
    "wider "
    "metal, a welded rib or a shorter reach helps",
    "barely_strong.straight": "Only {safety:.1f} times as strong as the stated shock needs; {safe:.0f} is usual. A "
    "welded rib or a "
    "shorter reach helps",
    "rigid": "Rigid: quiet bolts, but every shake and twist of the chassis goes into the tank; rubber or silicone "
    "grommets spare the core",
    "pad_loose": "The pad is not squeezed at all: it would rattle",
    "pad_squeezed": "The pad is squeezed {squeeze:.0%}; {least:.0%} to {most:.0%} holds without going hard",
    "bolt_through": "{name} does not pass the {hole} hole at the {where}",
    "bolt_tight": "{name} passes the {hole} hole at the {where} with hardly any room to adjust; {usual:fine} gives it",
    "point_gone": "That point is no longer there, or not measured: choose another",
    "choose_point": "Choose the point it goes to",
    "hole_unplaced": "The new hole is not placed yet: across, height and depth are needed",
    "hole_unmeasured": "{name} is not fully measured: place across, height and depth are needed",
    "core_leans": "The core leans by {lean}: bend the chassis end by so much more or less, so that it lies flat",
    "press_so": "Bend it {past} past flat toward the {toward}: bolted up it presses with {force}",
    "across_square": "It goes straight across: its two faces have to look the same way, these stand square to each "
    "other",
    "no_room_between": "Spacers and pad take {takes}, its points are {apart} apart",
    "bolt_bends": "Bends for good at the stated shock: only {safety:.1f} times as strong as it needs; a larger one, "
    "or a "
    "strap that is braced",
    "barely_strong_bolt": "Only {safety:.1f} times as strong as the stated shock needs; {safe:.0f} is usual",
    "aside": "The holes lie {aside} to one side of each other: a strip {width} wide does not reach, {wide} would",
    "arch_square": "An arch goes between faces that look the same way; these stand square to each other",
    "straight_across": "The points lie {out} straight across from each other: a stud or a stand-off, not a strap",
    "press_too_far": "Bent {past} past flat it would be bent straight again when it is bolted up: {most:tenths} at "
    "the most",
    "ends_beside": "Its ends lie {run} beside each other; straight across it can take up {free} in its holes: a "
    "strap, or a "
    "hole elsewhere",
    "plate_faces": "{point} looks another way than {first}: one plate lies in one plane",
    "plate_out_of_plane": "{point} lies {off} out of the plate’s plane: spacers there, or a bent bracket",
    "notch_welded": "Close the notch with a welded edge, or the metal tears from its corner",
    "slot_filed": "Draw its holes out by {far}; file the ends round, wide washers over the slots",
    "was_fixed": "Surveyed as fixed: what lets it move now?",
    "foam_pushes": "The foam pushes with {force}",
    "foam_seals": "Foam {foam} thick is squeezed {share:.0%} in {gap}: seals",
    "drums": "Drums: its field swings at about {frequency:.0f} Hz, under {under:.0f} Hz; beads {bead} high front to "
    "back help",
    "drums.beaded": "Drums: its field swings at about {frequency:.0f} Hz, under {under:.0f} Hz; higher beads or "
    "thicker "
    "sheet help",
    "floppy_panel": "Floppy: its edge gives {sag} under a hand’s weight; fold it, or a wider lip",
    "pins_hold": "{pins:.0f} push pins hold {held}: {need} of them, softer foam, or bolts ({bolt})",
    "closes_nothing": "It closes nothing: choose an edge of the core or a surveyed hole",
    "cover_on_edge": "A cover goes over a surveyed hole; an edge of the core takes a panel or a strip",
    "hole_takes_cover": "A hole takes a cover; panels, strips and ducts go to an edge of the core",
    "no_gap": "There is no gap to close: the {name} is closed already",
    "no_gap.unmeasured": "There is no gap to close: the {name} is not measured yet",
    "leaves_open": "It leaves {open} of the gap open: {long} long where the gap is {gap}",
    "closed_already": "There is no gap left to close: {other} closes it already",
    "foam_loose": "The foam is squeezed {share:.0%} only: it leaks where the sheet waves; {thick} thick does",
    "foam_hard": "The foam is squeezed {share:.0%}: it takes a set and pushes the panel out of shape; {thick} thick "
    "does",
    "no_foam": "No foam: sheet waves, {open} stay open along it",
    "foam_thin": "Foam {foam} thick is thinner than the {gap} it has to fill: {thick} does",
    "two_made_one": "Two made one: {width} over both, {trim} off each where they meet, the seal channel too",
    "trial_fit": "Trial fit after each cut; tack metal in place with water on the plastic, weld it away from it",
    "pan_on_tanks": "It stands on the tanks: {over} over its flanges, {room} between the tanks, {proud} proud of "
    "the fins",
    "edge_trim_adds": "Edge trim adds {adds} at every cut edge: leave room for it, and deburr first",
    "shroud_shallow": "Only {depth} from fins to fan: the corners of the face are starved",
    "opening_cut": "Cut its opening from {opening} to {wanted}: no ring is needed, {web} is left to the edge",
    "floppy_pan": "Floppy: its long edge gives {sag} under a hand's weight; a folded edge or a wider flange "
    "stiffens it",
    "no_flap_corner": "No corner of the face is free enough for the flaps: fewer square inches, or place them by hand",
    "no_flange": "No flange beside the tanks: split hose on the plain edges seals them on the fins",
    "ring_laps": "Its opening is {opening}, the fan wants {wanted}: the ring laps it by {lap} all round, sealed",
    "ring_no_web": "Its opening of {opening} cannot be cut to {wanted}: {web} would be left to its edge, {least} at "
    "least",
    "drums_pan": "Drums: its largest flat field swings at about {frequency:.0f} Hz, under {under:.0f} Hz. Beads {bead} "
    "high across its shorter way stiffen it",
    "drums_pan.beaded": "Drums: its largest flat field swings at about {frequency:.0f} Hz, under {under:.0f} Hz. "
    "Higher beads or "
    "thicker sheet help",
    "seam.sealant": "Sealant in the lap before it is riveted; it cures before the fans run",
    "seam.foam": "Foam tape in the lap, squeezed by the rivets",
    "seam.welded": "Plastic welded along both sides; metal brackets are welded away from it",
    "seam.none": "The joint is left open and leaks",
    "they_lap": "They lap by {lap}",
    "edge_to_edge": "Edge to edge, a strip behind the joint",
    "stopped": "{sentence}",
    "no_cooler_to_hang": "There is no such cooler to hang",
    "no_condenser_to_hang": "There is no condenser ahead of this core to hang",
    "nut.rivet_nut": "Rivet nut: set it in the strip before bending, check that it does not spin",
    "nut.lock_nut": "Nylon lock nut with a wide washer on rubber or plastic",
    "nut.welded_stud": "Welded stud: through its hole and welded from the back, a root pass first, square to the "
    "strap; away "
    "from core and battery",
    "retried.horn": "Try the horn afterwards: an inspection asks for it.",
    "retried.regulator": "Its base has to be grounded where it stands then.",
}
