//! The trade's words in a sentence each, for help in place. One table; the screen shows nothing else.

use serde::Serialize;

/// A word of the trade.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct Term {
    /// The word.
    pub word: &'static str,
    /// What it means.
    pub meaning: &'static str,
}

const fn term(word: &'static str, meaning: &'static str) -> Term {
    Term { word, meaning }
}

/// Every word, in alphabetical order.
pub static GLOSSARY: &[Term] = &[
    term(
        "Advance",
        "How many crank degrees the intake centreline stands ahead of the lobe separation; positive closes the intake earlier.",
    ),
    term(
        "Back pressure",
        "Pressure above outside behind the collectors or the turbine, as a gauge shows it at the speed of peak power; it grows with the square of the flow.",
    ),
    term("Base circle", "The round heel of the lobe the follower rests on while the valve is shut."),
    term("Best timing", "Spark that gives most torque; retard from it costs torque and buys reserve against knock."),
    term("Boost", "Pressure in the intake manifold above the outside air, as a gauge shows it."),
    term("Bounce", "The valve leaves its seat again after it has landed: charge leaks, and the seat is hammered."),
    term("Buckling load", "Load at which a pushrod bows out sideways, by Euler and Johnson."),
    term(
        "Burette",
        "A graduated tube that fills chamber or cylinder under a plate (cc'ing): chamber and dish or dome to some tenths of a cc.",
    ),
    term(
        "Calibration",
        "A few constants of the breathing model fitted to a pull on the dyno (port flow, friction, heat released, intake length), the same for every candidate.",
    ),
    term("Card", "The maker's data of a cam: lift and the duration at stated checking heights."),
    term("Case depth left", "Hardened depth that stays after a regrind; below it the lobe spalls."),
    term(
        "Checking height",
        "Lobe lift at which an event or a duration is quoted, such as .050 in; the same cam has a longer duration at a lower height.",
    ),
    term(
        "Clay check",
        "Clay in the valve pocket, the engine turned twice by hand and the clay cut through: its thinnest places are the room to floor and wall with this cam.",
    ),
    term("Coil bind", "All coils of a spring touch; past it something bends or breaks."),
    term("Coil-bind clearance", "What is left between full net lift and coil bind."),
    term(
        "Contact (Hertz) stress",
        "Pressure between lobe and follower by Hertz's equations; high load, a small roller or a sharp nose raise it.",
    ),
    term(
        "Contact pattern",
        "Band the rocker's tip wipes on the stem, its width and where it lies; narrow and centred wears the guide least.",
    ),
    term(
        "Control",
        "The follower stays on the lobe and the valve lands gently; it is lost when inertia beats the spring.",
    ),
    term(
        "Cranking pressure",
        "Highest cylinder pressure while the starter turns the engine; a gauge reads less for what leaks past rings and valves.",
    ),
    term(
        "Deck clearance",
        "How far the flat of the crown stays below the block's deck at top dead centre; negative when it stands out.",
    ),
    term(
        "Drive pressure",
        "Exhaust pressure ahead of a turbine; it pushes the exhaust valve open and, above boost, exhaust back through overlap.",
    ),
    term(
        "Drop to piston",
        "How far the closed valve falls along its stem before it meets the piston, by dial with a light spring, at overlap top dead centre or at given degrees.",
    ),
    term("Duration", "Crank degrees a valve is past a checking height, from opening to closing."),
    term(
        "Dynamic compression",
        "Trapped compression, at seat timing: volume above the piston at intake closing over the volume at top dead centre, what the charge really sees at low speed.",
    ),
    term(
        "Exhaust closes",
        "The event after top dead centre that ends overlap; later helps scavenging on top and costs idle.",
    ),
    term(
        "Exhaust opens",
        "The event before bottom dead centre that ends expansion; earlier leaves more time to blow down and gives away some of the power stroke.",
    ),
    term("Face recess", "Height of the closed valve's lowest edge above the head's gasket face."),
    term(
        "Friction",
        "What bearings, rings, valve train and the pumps the crank drives take, as a mean pressure on the pistons over the cycle.",
    ),
    term("Gross lift", "Lobe lift times rocker ratio, before lash is taken off."),
    term("Guide side load", "Push across the stem from the rocker's sweep and friction, over the guide's area."),
    term(
        "Inlet depression",
        "Pressure lost before the throttle in cleaner and ducts, as a gauge shows it at the speed of peak power; it grows with the square of the flow.",
    ),
    term(
        "Installed height",
        "Height of the spring from its seat to the retainer with the valve shut; it sets the seat load.",
    ),
    term(
        "Intake centreline",
        "Crank degrees after top dead centre of the middle of the intake's .050 events, as installed.",
    ),
    term(
        "Intake closes",
        "The event after bottom dead centre that traps the charge; later keeps filling at speed and gives away compression low down.",
    ),
    term("Intake opens", "The event before top dead centre that begins overlap."),
    term(
        "Lash",
        "Clearance of a solid train, taken at the valve; it comes off the lift and shortens the running events.",
    ),
    term(
        "Limiting speed",
        "Where the valve no longer follows its lobe: gap, bounce or a valve that stays open pass what may be.",
    ),
    term("Lobe lift", "Follower lift of the lobe, before the rocker multiplies it."),
    term(
        "Lobe separation",
        "Half the crank degrees between the two centrelines; narrow means more overlap for the same durations.",
    ),
    term(
        "Lobe-to-bearing clearance",
        "How far the lobe's highest point stays within the cam bearing's bore, so that the cam can be pushed in.",
    ),
    term("Loft", "The valve train leaves the lobe over the nose and the valve opens further than it was ground for."),
    term(
        "Lost motion",
        "Follower lift that does not reach the valve: lash, the hydraulic lifter's give, and flex of pushrod and rocker.",
    ),
    term(
        "Manifold's loss",
        "What an intake manifold takes from the head's flow, in velocity heads of its runner; known best from one port on the bench with the manifold and without.",
    ),
    term("Margin", "What is left over between what a limit needs and what the build has; positive when it is met."),
    term(
        "Measured, card, assumed",
        "Where a value comes from: read on the bench, taken from a maker's sheet, or neither yet.",
    ),
    term(
        "Missed shift",
        "Speed above the shift that the engine reaches once by mistake; springs and limits are held to it.",
    ),
    term("Octane", "Knock resistance of the fuel: research octane (RON), or the pump's (R+M)/2, which is 4 to 5 less."),
    term("Open load", "Spring load at this cam's full net lift; a sheet's figure holds only for the sheet's own lift."),
    term(
        "Overlap",
        "Crank degrees both valves are past the checking height around top dead centre; negative when neither is.",
    ),
    term("Piston to head", "Deck clearance plus the crushed gasket: the gap over the flat of the crown."),
    term("Pocket", "Relief cut into the crown so that a valve can come near without touching."),
    term("Preload", "Plunger travel of a hydraulic lifter that is taken up at rest."),
    term(
        "Pump-up",
        "A hydraulic lifter fills while the train is loose, stands too tall, and holds the valve open until it has leaked down.",
    ),
    term("Radial clearance", "Gap from the valve's edge to the wall of its pocket, square to the stem."),
    term("Rate", "Load a spring gains for each unit of travel."),
    term("Remedy", "One change that buys a margin back, found by running the build again with it."),
    term("Rigid lift", "Net lift of parts that do not give: lobe lift times ratio, less lash."),
    term("Rocker ratio", "Valve lift for each unit of lobe lift; the nominal figure changes through the sweep."),
    term("Running lift", "Lift of the valve after lost motion and flex."),
    term("Seat load", "Spring load with the valve shut; it must hold against bounce, boost and drive pressure."),
    term(
        "Seat timing",
        "Events and duration at about .006 in of lobe lift, where the valve really leaves and meets its seat.",
    ),
    term(
        "Smallest section",
        "Narrowest place of the port, mostly beside the pushrod; it sets the speed of waves and air there, and with it where power peaks.",
    ),
    term("Stock preload", "Plunger travel taken up as engines leave the works, .015 to .030 in."),
    term("Surge", "Waves within a spring; near a harmonic of the lobe they take load away when it is needed."),
    term("Tip-side mass", "Rocker mass that counts at the valve, weighed in a stand at the tip."),
    term(
        "Valve float speed",
        "Speed at which a rigid train would leave the lobe, by force against mass times acceleration; a real train loses 20 to 25 per cent of it.",
    ),
    term("Valve height", "Gasket face of the head to the closed valve by depth gauge; it gives the face recess."),
    term(
        "Valve to piston",
        "Smallest distance along the stem between valve and crown over the cycle, mostly near overlap.",
    ),
    term(
        "Velocity head",
        "Pressure that stopping the flow would give, half its density times the square of its speed: losses of bends and manifolds are counted in it.",
    ),
    term("Wastegate", "Lets a share of the exhaust past the turbine, which needs more pressure for the same work."),
    term("Waves' end allowance", "Length beyond the metal that pressure waves see at an open end."),
];

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn every_word_stands_once_in_its_place_with_one_sentence() {
        for pair in GLOSSARY.windows(2) {
            assert!(pair[0].word.to_lowercase() < pair[1].word.to_lowercase(), "{}", pair[1].word);
        }
        for term in GLOSSARY {
            assert!(term.meaning.ends_with('.') && term.meaning.matches(". ").count() == 0, "{}", term.word);
        }
    }
}
