//! The closed lists of the build document as enums: one list gives the words of the table, the reading and the spoken
//! form, so that a new word is a compiler error wherever it must be thought of.

/// A choice of the document.
pub trait Word: Copy + PartialEq + 'static {
    /// Every word, in the order forms show them.
    const WORDS: &'static [&'static str];
    /// The word in the document.
    fn word(self) -> &'static str;
    /// The choice of that word.
    fn from_word(word: &str) -> Option<Self>;
    /// As a person reads it.
    fn spoken(self) -> String {
        self.word().replace('_', " ")
    }
}

/// Declares one closed list.
macro_rules! words {
    ($($(#[$doc:meta])* $name:ident { $($(#[$item_doc:meta])* $item:ident = $word:literal,)+ })+) => {$(
        $(#[$doc])*
        #[derive(Debug, Clone, Copy, PartialEq, Eq, Hash)]
        pub enum $name { $($(#[$item_doc])* $item,)+ }

        impl $name {
            /// Every choice, in the order forms show them.
            pub const ALL: &'static [Self] = &[$(Self::$item,)+];
        }

        impl Word for $name {
            const WORDS: &'static [&'static str] = &[$($word,)+];
            fn word(self) -> &'static str {
                match self { $(Self::$item => $word,)+ }
            }
            fn from_word(word: &str) -> Option<Self> {
                match word { $($word => Some(Self::$item),)+ _ => None }
            }
        }
    )+};
}

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

    /// What rides on the lobe.
    LifterKind {
        /// Hydraulic, flat foot.
        HydraulicFlat = "hydraulic_flat",
        /// Solid, flat foot.
        SolidFlat = "solid_flat",
        /// Hydraulic, roller.
        HydraulicRoller = "hydraulic_roller",
        /// Solid, roller.
        SolidRoller = "solid_roller",
    }

    /// Design of a hydraulic lifter.
    LifterVariant {
        /// As series engines have it.
        Standard = "standard",
        /// With little travel, so that pump-up is short.
        ShortTravel = "short_travel",
        /// With a valve against pump-up.
        AntiPumpUp = "anti_pump_up",
    }

    /// What keeps a roller lifter square to its lobe.
    AntiRotation {
        /// A bar between two lifters.
        LinkBar = "link_bar",
        /// A tray in the valley.
        GuideTray = "guide_tray",
        /// A key in the bore.
        Keyway = "keyway",
        /// Nothing.
        None = "none",
    }

    /// How much preload the builder holds to.
    PreloadSchool {
        /// As engines leave the works.
        Series = "series",
        /// So light that pump-up cannot hold the valve open.
        Light = "light",
        /// Close to the bottom, with short travel.
        Deep = "deep",
    }

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

    /// What turns the camshaft.
    CamDrive {
        /// A chain.
        Chain = "chain",
        /// Gears.
        Gear = "gear",
        /// A belt.
        Belt = "belt",
    }

    /// How wide a chain is.
    ChainRows {
        /// One row.
        Single = "single",
        /// Two rows.
        Double = "double",
    }

    /// How a gear is bolted to a cam.
    Snout {
        /// One bolt.
        OneBolt = "one_bolt",
        /// Two bolts.
        TwoBolt = "two_bolt",
        /// Three bolts.
        ThreeBolt = "three_bolt",
    }

    /// Gear of distributor or oil pump that runs on the cam's.
    DistributorGear {
        /// Cast iron.
        Iron = "iron",
        /// Hardened steel.
        Steel = "steel",
        /// Bronze.
        Bronze = "bronze",
        /// Composite.
        Composite = "composite",
        /// There is none.
        None = "none",
    }

    /// What the lobes are cut from.
    Core {
        /// Cast iron.
        CastIron = "cast_iron",
        /// Steel.
        Steel = "steel",
        /// Ductile iron.
        DuctileIron = "ductile_iron",
    }

    /// The lifters a cam's lobes are ground for.
    GroundFor {
        /// With a taper, for flat lifters.
        Flat = "flat",
        /// For rollers.
        Roller = "roller",
    }

    /// The cam's own gear.
    CamGear {
        /// Cut from the core.
        Core = "core",
        /// Of iron, pressed on.
        PressedIron = "pressed_iron",
    }

    /// What a rocker pivots on.
    Mount {
        /// A stud of its own.
        Stud = "stud",
        /// A pedestal.
        Pedestal = "pedestal",
        /// A single shaft.
        Shaft = "shaft",
        /// One shaft for a pair.
        PairedShaft = "paired_shaft",
    }

    /// What touches the valve.
    Tip {
        /// A roller.
        Roller = "roller",
        /// A plain pad.
        Pad = "pad",
    }

    /// The school of a rocker's height.
    RockerGeometry {
        /// Square to the stem at half lift.
        HalfLift = "half_lift",
        /// Never past square: square at full lift.
        FullLift = "full_lift",
    }

    /// Material of a valve's head.
    ValveMaterial {
        /// Stainless steel.
        Stainless = "stainless",
        /// Titanium.
        Titanium = "titanium",
        /// Nickel alloy.
        NickelAlloy = "nickel_alloy",
        /// Hollow, with sodium.
        SodiumFilled = "sodium_filled",
        /// Steel.
        Steel = "steel",
    }

    /// What a stem runs in.
    Guide {
        /// Bronze.
        Bronze = "bronze",
        /// Iron.
        Iron = "iron",
        /// Powder metal.
        PowderMetal = "powder_metal",
    }

    /// Shape of a spring package.
    SpringForm {
        /// One coil.
        Single = "single",
        /// Narrow at the top.
        Beehive = "beehive",
        /// Narrower all the way up.
        Conical = "conical",
        /// Two nested coils.
        Dual = "dual",
        /// Three nested coils.
        Triple = "triple",
    }

    /// Wire of a spring.
    Wire {
        /// A228.
        Music = "music_wire",
        /// A229.
        OilTempered = "oil_tempered",
        /// A232.
        ChromeVanadium = "chrome_vanadium",
        /// A401.
        ChromeSilicon = "chrome_silicon",
        /// Super-clean chrome silicon of valve-spring quality.
        SuperClean = "super_clean",
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

impl Layout {
    /// Whether two rows of cylinders share a crank.
    pub const fn is_vee(self) -> bool {
        matches!(self, Self::V8 | Self::V6)
    }
}

impl LifterKind {
    /// Whether the foot is flat.
    pub const fn is_flat(self) -> bool {
        matches!(self, Self::HydraulicFlat | Self::SolidFlat)
    }

    /// Whether it runs on a wheel.
    pub const fn is_roller(self) -> bool {
        !self.is_flat()
    }

    /// Whether it runs with lash.
    pub const fn is_solid(self) -> bool {
        matches!(self, Self::SolidFlat | Self::SolidRoller)
    }

    /// Whether oil takes up the play.
    pub const fn is_hydraulic(self) -> bool {
        !self.is_solid()
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn every_word_reads_back_as_its_choice() {
        for kind in LifterKind::ALL {
            assert_eq!(LifterKind::from_word(kind.word()), Some(*kind));
        }
        assert_eq!(LifterKind::WORDS.len(), LifterKind::ALL.len());
        assert_eq!(LifterKind::from_word("roller"), None);
        assert_eq!(LifterKind::HydraulicRoller.spoken(), "hydraulic roller");
    }
}
