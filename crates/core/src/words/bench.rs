//! What is read at the bench, and how.

use super::word::{Word, words};

words! {
    /// What a running engine showed of a gap.
    WitnessKind {
        /// A mark that left so much.
        Mark = "mark",
        /// Valve and piston met.
        Touch = "touch",
        /// It ran and nothing met.
        NoTouch = "no_touch",
    }

    /// What a session at the bench measures.
    SessionKind {
        /// Where the cam stands on the crank.
        DegreeIn = "degree_in",
        /// Lift and place of lobes.
        LobeMap = "lobe_map",
        /// Lift at the valve with a light and with the real spring.
        LiftCheck = "lift_check",
        /// Springs on the tester.
        Springs = "springs",
        /// Installed heights of all valves.
        InstalledHeights = "installed_heights",
        /// The valve's drop to the piston.
        ValveDrop = "valve_drop",
        /// Compression of all cylinders.
        Compression = "compression",
        /// Leak-down of all cylinders.
        LeakDown = "leak_down",
        /// Heights of all stems.
        Stems = "stems",
        /// Pistons below the deck at the corners of each bank.
        Decks = "decks",
        /// Pushrods, and the length each place wants.
        Pushrods = "pushrods",
        /// Preload or lash, valve by valve.
        Adjustment = "adjustment",
        /// Clay between valve and piston.
        Clay = "clay",
        /// Seats, guides and castings.
        Head = "head",
        /// Rockers weighed in a stand.
        RockerMass = "rocker_mass",
        /// Chambers and ports by burette.
        Volumes = "volumes",
        /// Ports on the flow bench.
        Flow = "flow",
        /// The card that came with the cam.
        CamCard = "cam_card",
    }

    /// Where a part is on its way.
    Obtained {
        /// Nobody asked for it yet.
        ToBuy = "to_buy",
        /// It was ordered.
        Ordered = "ordered",
        /// It lies on the bench.
        Here = "here",
    }

    /// An end of a bank.
    BankEnd {
        /// Where the drive is.
        Front = "front",
        /// Where the flywheel is.
        Rear = "rear",
    }

    /// An edge of a piston, across the engine.
    CrownEdge {
        /// Towards the middle of the engine.
        Inside = "inside",
        /// Away from it.
        Outside = "outside",
    }

    /// Where clay was squeezed.
    ClayAt {
        /// Between face and crown.
        Floor = "floor",
        /// Between the edge and the pocket's wall.
        Wall = "wall",
    }

    /// What is read of a seat and its guide.
    HeadCheck {
        /// Of the seat about the guide.
        SeatRunOut = "seat_run_out",
        /// Of the stem in the guide, across.
        GuidePlay = "guide_play",
        /// Widest less narrowest of the guide.
        GuideOvality = "guide_ovality",
    }

    /// What is filled.
    FilledOf {
        /// Under a plate, valves and plug in.
        Chamber = "chamber",
        /// From its flange to the valve.
        IntakePort = "intake_port",
        /// From the valve to its flange.
        ExhaustPort = "exhaust_port",
    }

    /// Whether a casting was looked at for cracks.
    Cracks {
        /// Nothing was found.
        None = "none",
        /// Something was found.
        Found = "found",
    }

    /// How warm an engine was.
    Warmth {
        /// As it stood.
        Cold = "cold",
        /// Run warm.
        Hot = "hot",
    }

    /// How a cam is degreed in.
    DegreeMethod {
        /// By heights on both flanks.
        Events = "events",
        /// By equal drops on both sides of full lift.
        FullLift = "full_lift",
    }

    /// Where a dial stands.
    DialOn {
        /// On the lifter.
        Lifter = "lifter",
        /// On the valve's retainer.
        Valve = "valve",
    }

    /// Whether lash was in.
    LashState {
        /// As it runs.
        In = "in",
        /// Taken up.
        Out = "out",
    }

    /// A flank in a table of readings.
    FlankWord {
        /// Before full lift.
        Opening = "opening",
        /// After it.
        Closing = "closing",
    }

    /// What turns with a wheel.
    AnglesOf {
        /// The cam in its fixture.
        Cam = "cam",
        /// The crank.
        Crank = "crank",
    }

    /// How lobes are mapped.
    MappedBy {
        /// Nose to heel, and across the base.
        Caliper = "caliper",
        /// A dial over the angle.
        Dial = "dial",
    }

    /// The spring a lift was read with.
    SpringUsed {
        /// A light checking spring.
        Light = "light",
        /// The one that runs.
        Real = "real",
    }
}
