//! What is read of an engine that runs: on the dyno, at speed, and on the road.

use super::word::{Word, words};

words! {
    /// What constants of the model were learned from.
    CalibratedBy {
        /// Pulls of the build itself.
        Pull = "pull",
        /// Pulls of the shop's other builds.
        Shop = "shop",
    }

    /// The standard air a pull was corrected to.
    PullAir {
        /// The plan's own air.
        AsPlanned = "as_planned",
        /// SAE J1349.
        SaeJ1349 = "sae_j1349",
        /// SAE J607.
        SaeJ607 = "sae_j607",
        /// ISO 1585.
        Iso1585 = "iso_1585",
        /// The air of its own day, which stands beside it.
        AsMeasured = "as_measured",
    }

    /// What is read beside torque.
    TracedOf {
        /// Mass of air for one of fuel.
        AirFuelRatio = "air_fuel_ratio",
        /// Oil.
        OilTemperature = "oil_temperature",
        /// Coolant.
        WaterTemperature = "water_temperature",
        /// Air at the inlet.
        AirTemperature = "air_temperature",
        /// Exhaust.
        ExhaustTemperature = "exhaust_temperature",
        /// Oil.
        OilPressure = "oil_pressure",
        /// Manifold.
        ManifoldPressure = "manifold_pressure",
        /// Ignition or injection before top dead centre.
        Spark = "spark",
    }

    /// Where a dyno takes hold.
    DynoKind {
        /// At the crank.
        Engine = "engine",
        /// At the wheels.
        Chassis = "chassis",
    }

    /// What a line of the service log is about.
    ServiceEvent {
        /// It went together; wear begins.
        Assembled = "assembled",
        /// Looked at and measured.
        Inspection = "inspection",
        /// Lash or preload set anew.
        LashSet = "lash_set",
        /// Oil and filter.
        Oil = "oil",
        /// Parts changed.
        Parts = "parts",
        /// Something broke or gave up.
        Failure = "failure",
    }

    /// What may be changed in service, as far as wear begins anew with it.
    ServicePart {
        /// Valve springs.
        Springs = "springs",
        /// Valves.
        Valves = "valves",
        /// Valve guides.
        Guides = "guides",
        /// Valve seats, cut or new.
        Seats = "seats",
        /// Rockers.
        Rockers = "rockers",
        /// Pushrods.
        Pushrods = "pushrods",
        /// Lifters.
        Lifters = "lifters",
        /// Camshaft.
        Camshaft = "camshaft",
        /// Timing chain, belt or gears.
        CamDrive = "cam_drive",
        /// Head gasket.
        HeadGasket = "head_gasket",
    }
}
