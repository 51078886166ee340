//! What an engine is made of, and what it breathes and burns.

use super::word::{Word, words};

words! {
    /// What a pushrod or a rocker is made of.
    LightMetal {
        /// Steel.
        Steel = "steel",
        /// Aluminium.
        Aluminium = "aluminium",
    }

    /// What a connecting rod is made of.
    RodMaterial {
        /// Steel.
        Steel = "steel",
        /// Aluminium: grows more.
        Aluminium = "aluminium",
        /// Titanium.
        Titanium = "titanium",
    }

    /// What block and heads are cast of.
    Casting {
        /// Iron.
        Iron = "iron",
        /// Aluminium.
        Aluminium = "aluminium",
    }

    /// Arrangement of the cylinders.
    Layout {
        /// Eight in a V.
        V8 = "V8",
        /// Six in line.
        InlineSix = "inline_six",
        /// Six in a V.
        V6 = "V6",
        /// Four in line.
        InlineFour = "inline_four",
    }

    /// How the charge is lit.
    Combustion {
        /// By a spark.
        Spark = "spark",
        /// By compression.
        Diesel = "diesel",
    }

    /// What the engine burns.
    FuelKind {
        /// Petrol.
        Petrol = "petrol",
        /// 85 % ethanol.
        E85 = "e85",
        /// Methanol.
        Methanol = "methanol",
        /// Diesel.
        Diesel = "diesel",
    }

    /// What carries the exhaust away from the heads.
    ExhaustManifold {
        /// A pipe of its own from each port.
        Headers = "headers",
        /// Cast, with short passages that meet in one outlet.
        Cast = "cast",
        /// One passage along the head that all ports open into.
        Log = "log",
        /// Cast with a water jacket; the water joins the exhaust behind it.
        WaterJacketed = "water_jacketed",
    }

    /// What carries the charge from plenum to head.
    IntakeManifold {
        /// Every runner from one open plenum.
        SinglePlane = "single_plane",
        /// Two plenums, each for every other firing.
        DualPlane = "dual_plane",
        /// Long moulded runners.
        LongRunners = "long_runners",
        /// One passage along the heads.
        Log = "log",
        /// A throttle and a mouth for each cylinder.
        Individual = "individual",
    }

    /// How the fuel meets the air.
    MixtureKind {
        /// In the carburettor.
        Carburettor = "carburettor",
        /// Into the port.
        PortInjection = "port_injection",
        /// Into the cylinder.
        DirectInjection = "direct_injection",
    }

    /// What the crank drives besides itself.
    Accessories {
        /// Nothing: oil by an outside pump.
        None = "none",
        /// The oil pump alone, as on a dyno.
        OilPump = "oil_pump",
        /// Oil and water pump, alternator, fan.
        All = "all",
    }

    /// Where a depth gauge meets a closed valve.
    FaceSpot {
        /// At the edge nearest to the gasket face.
        Edge = "edge",
        /// In the middle of the face.
        Centre = "centre",
    }

    /// What meters the air.
    Induction {
        /// A carburettor.
        Carburettor = "carburettor",
        /// A throttle.
        Throttle = "throttle",
        /// A charger.
        Boosted = "boosted",
        /// Nothing.
        Open = "open",
    }

    /// What drives the compressor.
    ChargerKind {
        /// The exhaust.
        Turbine = "turbine",
        /// The crank.
        Blower = "blower",
    }
}

impl Layout {
    /// Whether two rows of cylinders share a crank.
    pub const fn is_vee(self) -> bool {
        matches!(self, Self::V8 | Self::V6)
    }
}
