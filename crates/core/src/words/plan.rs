//! What an engine is for, and what is asked of it.

use super::word::{Word, words};

words! {
    /// Families of engines a build may begin from.
    FamilyKind {
        /// About 5 litres.
        SmallV8 = "small_v8",
        /// About 6 litres.
        MiddleV8 = "middle_v8",
        /// About 7.7 litres.
        LargeV8 = "large_v8",
        /// Two valves a cylinder.
        DieselSix = "diesel_six",
        /// Four valves a cylinder.
        DieselSixFourValve = "diesel_six_four_valve",
        /// Four valves a cylinder.
        DieselV8 = "diesel_v8",
    }

    /// What a score board may rank.
    Scored {
        /// Mean torque over the band, or over speeds of its own.
        AverageTorque = "average_torque",
        /// Greatest torque.
        PeakTorque = "peak_torque",
        /// Mean power over the band, or over speeds of its own.
        AveragePower = "average_power",
        /// Greatest power.
        PeakPower = "peak_power",
        /// Area under the power curve.
        UnderCurve = "under_curve",
        /// Vacuum at idle.
        IdleVacuum = "idle_vacuum",
        /// How far beyond a missed shift control is kept.
        Control = "control",
        /// What is left of the limit with the least left.
        Margin = "margin",
        /// How long springs go between two looks.
        Life = "life",
        /// Pressure between stem and guide.
        GuidePressure = "guide_pressure",
        /// What the parts cost.
        Money = "money",
    }

    /// What the engine is for.
    Use {
        /// On the road.
        Street = "street",
        /// Pulls trailers.
        Tow = "tow",
        /// A quarter mile at a time.
        Strip = "strip",
        /// Laps.
        Circuit = "circuit",
        /// On the water.
        Marine = "marine",
        /// Earns its living.
        Work = "work",
    }

    /// How near a valve may come to the piston.
    ClearanceSchool {
        /// Conventional minima.
        Generous = "generous",
        /// Tight ones, proven by a growth budget.
        Engineered = "engineered",
    }

    /// How a value spreads within its plus-minus.
    SpreadShape {
        /// The bell: the plus-minus holds 95 of 100.
        Normal = "normal",
        /// Anything within the plus-minus alike.
        Uniform = "uniform",
        /// Most in the middle, none beyond.
        Triangular = "triangular",
    }

    /// What shares the cause of a spread.
    SharedCause {
        /// Every cylinder has its own.
        Cylinder = "cylinder",
        /// The cylinders of a bank have it in common.
        Bank = "bank",
        /// All of an engine have it in common.
        Engine = "engine",
    }
}
