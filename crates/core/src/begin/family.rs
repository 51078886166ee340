//! Invented families of engines a build may begin from: no engine of any maker, but what engines of such a kind have.
//! Every figure stands with the range in which most of its kind lie (common practice, no source; tests hold the ranges
//! against handbook proportions).

use crate::words::{Casting, FamilyKind, Use};

/// A figure of a family: the field, what is assumed, and between what most engines of the kind lie.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Figure {
    /// Path of the field.
    pub field: &'static str,
    /// What is assumed.
    pub text: &'static str,
    /// Least of most.
    pub low: &'static str,
    /// Most of most.
    pub high: &'static str,
}

const fn figure(field: &'static str, text: &'static str, range: (&'static str, &'static str)) -> Figure {
    Figure { field, text, low: range.0, high: range.1 }
}

/// A kind of engine.
#[derive(Debug)]
pub struct Family {
    /// Its word in the document.
    pub kind: FamilyKind,
    /// As people say it.
    pub title: &'static str,
    /// In a sentence.
    pub about: &'static str,
    /// Uses it is offered for, the likeliest first.
    pub uses: &'static [Use],
    /// What its heads are cast of, the likeliest first.
    pub heads: &'static [Casting],
    /// Block and crank.
    pub figures: &'static [Figure],
    /// Heads by what they are cast of.
    pub iron: &'static [Figure],
    /// The same of aluminium; empty where none are made.
    pub aluminium: &'static [Figure],
    /// Speeds of its street build; other uses move them in proportion, rpm: band from, band to, power at, shift at.
    pub street: [f64; 4],
}

impl Family {
    /// Whether it burns diesel.
    pub const fn is_diesel(&self) -> bool {
        matches!(self.kind, FamilyKind::DieselSix | FamilyKind::DieselSixFourValve | FamilyKind::DieselV8)
    }

    /// Figures of its heads, cast of `heads`.
    pub const fn heads(&self, heads: Casting) -> &'static [Figure] {
        match heads {
            Casting::Iron => self.iron,
            Casting::Aluminium => self.aluminium,
        }
    }

    /// The family of a kind.
    pub fn of(kind: FamilyKind) -> &'static Self {
        FAMILIES.iter().find(|family| family.kind == kind).unwrap_or(&FAMILIES[0])
    }

    /// The figure of `field`, under heads of that metal where heads differ.
    pub fn figure(&self, field: &str, heads: Casting) -> Option<&'static Figure> {
        let all = self.figures.iter().chain(self.heads(heads));
        all.into_iter().find(|figure| figure.field == field)
    }
}

const PETROL_USES: &[Use] = &[Use::Street, Use::Tow, Use::Marine, Use::Circuit, Use::Strip];
const DIESEL_USES: &[Use] = &[Use::Tow, Use::Work, Use::Marine, Use::Street];
const EITHER: &[Casting] = &[Casting::Iron, Casting::Aluminium];
const IRON: &[Casting] = &[Casting::Iron];

/// Every family, in the order they are offered.
pub static FAMILIES: &[Family] = &[
    Family {
        kind: FamilyKind::SmallV8,
        title: "Small petrol V8",
        about: "About 5 litres: turns freely, wants the smaller cam of the same duration.",
        uses: PETROL_USES,
        heads: EITHER,
        figures: &[
            figure("engine.bore", "3.900 in", ("3.650 in", "4.030 in")),
            figure("engine.stroke", "3.200 in", ("2.900 in", "3.450 in")),
            figure("engine.rod_length", "5.750 in", ("5.100 in", "6.250 in")),
            figure("engine.deck_clearance", "0.012 in", ("0 in", "0.040 in")),
            figure("engine.gasket_thickness", "0.040 in", ("0.015 in", "0.060 in")),
            figure("engine.piston_assembly_mass", "560 g", ("430 g", "680 g")),
            figure("engine.rod_mass", "580 g", ("480 g", "680 g")),
            figure("engine.intake.runner_diameter", "1.620 in", ("1.450 in", "1.850 in")),
            figure("engine.induction.throttle_flow", "600 cfm", ("450 cfm", "750 cfm")),
        ],
        iron: &[
            figure("engine.chamber_volume", "60 cc", ("42 cc", "72 cc")),
            figure("engine.intake.valve_diameter", "1.840 in", ("1.700 in", "1.950 in")),
            figure("engine.exhaust.valve_diameter", "1.500 in", ("1.400 in", "1.600 in")),
        ],
        aluminium: &[
            figure("engine.chamber_volume", "58 cc", ("42 cc", "66 cc")),
            figure("engine.intake.valve_diameter", "1.940 in", ("1.850 in", "2.050 in")),
            figure("engine.exhaust.valve_diameter", "1.550 in", ("1.480 in", "1.620 in")),
        ],
        street: [1900.0, 5400.0, 5200.0, 5500.0],
    },
    Family {
        kind: FamilyKind::MiddleV8,
        title: "Middle petrol V8",
        about: "About 6 litres: what most of these engines are, with the widest choice of parts.",
        uses: PETROL_USES,
        heads: EITHER,
        figures: &[
            figure("engine.bore", "4.010 in", ("3.900 in", "4.165 in")),
            figure("engine.stroke", "3.600 in", ("3.400 in", "3.800 in")),
            figure("engine.rod_length", "6.000 in", ("5.650 in", "6.250 in")),
            figure("engine.deck_clearance", "0.012 in", ("0 in", "0.045 in")),
            figure("engine.gasket_thickness", "0.040 in", ("0.015 in", "0.060 in")),
            figure("engine.piston_assembly_mass", "600 g", ("460 g", "740 g")),
            figure("engine.rod_mass", "620 g", ("520 g", "720 g")),
            figure("engine.intake.runner_diameter", "1.700 in", ("1.550 in", "1.950 in")),
            figure("engine.induction.throttle_flow", "650 cfm", ("550 cfm", "850 cfm")),
        ],
        iron: &[
            figure("engine.chamber_volume", "66 cc", ("46 cc", "78 cc")),
            figure("engine.intake.valve_diameter", "1.940 in", ("1.880 in", "2.030 in")),
            figure("engine.exhaust.valve_diameter", "1.550 in", ("1.480 in", "1.625 in")),
        ],
        aluminium: &[
            figure("engine.chamber_volume", "64 cc", ("46 cc", "72 cc")),
            figure("engine.intake.valve_diameter", "2.020 in", ("1.960 in", "2.100 in")),
            figure("engine.exhaust.valve_diameter", "1.600 in", ("1.550 in", "1.650 in")),
        ],
        street: [1800.0, 5300.0, 5100.0, 5400.0],
    },
    Family {
        kind: FamilyKind::LargeV8,
        title: "Large petrol V8",
        about: "About 7.7 litres: torque from below; the same cam is milder in it.",
        uses: PETROL_USES,
        heads: EITHER,
        figures: &[
            figure("engine.bore", "4.310 in", ("4.100 in", "4.600 in")),
            figure("engine.stroke", "4.050 in", ("3.750 in", "4.300 in")),
            figure("engine.rod_length", "6.450 in", ("6.100 in", "6.800 in")),
            figure("engine.deck_clearance", "0.015 in", ("0 in", "0.045 in")),
            figure("engine.gasket_thickness", "0.042 in", ("0.020 in", "0.065 in")),
            figure("engine.piston_assembly_mass", "790 g", ("600 g", "950 g")),
            figure("engine.rod_mass", "800 g", ("700 g", "950 g")),
            figure("engine.intake.runner_diameter", "1.950 in", ("1.750 in", "2.250 in")),
            figure("engine.induction.throttle_flow", "800 cfm", ("700 cfm", "1100 cfm")),
        ],
        iron: &[
            figure("engine.chamber_volume", "96 cc", ("68 cc", "122 cc")),
            figure("engine.intake.valve_diameter", "2.110 in", ("2.050 in", "2.200 in")),
            figure("engine.exhaust.valve_diameter", "1.720 in", ("1.650 in", "1.750 in")),
        ],
        aluminium: &[
            figure("engine.chamber_volume", "100 cc", ("68 cc", "122 cc")),
            figure("engine.intake.valve_diameter", "2.210 in", ("2.150 in", "2.300 in")),
            figure("engine.exhaust.valve_diameter", "1.780 in", ("1.700 in", "1.880 in")),
        ],
        street: [1600.0, 4900.0, 4700.0, 5000.0],
    },
    Family {
        kind: FamilyKind::DieselSix,
        title: "Diesel six, two valves",
        about: "About 5.9 litres, boosted, one intake and one exhaust valve a cylinder, flat deck and crown.",
        uses: DIESEL_USES,
        heads: IRON,
        figures: &[
            figure("engine.bore", "102 mm", ("95 mm", "112 mm")),
            figure("engine.stroke", "120 mm", ("110 mm", "132 mm")),
            figure("engine.rod_length", "192 mm", ("180 mm", "220 mm")),
            figure("engine.deck_clearance", "-0.40 mm", ("-0.80 mm", "0.20 mm")),
            figure("engine.gasket_thickness", "1.40 mm", ("1.0 mm", "1.8 mm")),
            figure("engine.piston_assembly_mass", "1750 g", ("1300 g", "2300 g")),
            figure("engine.rod_mass", "2100 g", ("1700 g", "2700 g")),
            figure("engine.intake.runner_diameter", "44 mm", ("38 mm", "52 mm")),
        ],
        iron: &[
            figure("engine.chamber_volume", "0 cc", ("0 cc", "4 cc")),
            figure("engine.intake.valve_diameter", "46 mm", ("42 mm", "49 mm")),
            figure("engine.exhaust.valve_diameter", "42 mm", ("37 mm", "45 mm")),
        ],
        aluminium: &[],
        street: [1400.0, 3000.0, 2800.0, 3100.0],
    },
    Family {
        kind: FamilyKind::DieselSixFourValve,
        title: "Diesel six, four valves",
        about: "About 6.7 litres, boosted, two valves a port on bridges, flat deck and crown.",
        uses: DIESEL_USES,
        heads: IRON,
        figures: &[
            figure("engine.bore", "107 mm", ("98 mm", "118 mm")),
            figure("engine.stroke", "124 mm", ("112 mm", "138 mm")),
            figure("engine.rod_length", "196 mm", ("182 mm", "225 mm")),
            figure("engine.deck_clearance", "-0.40 mm", ("-0.80 mm", "0.20 mm")),
            figure("engine.gasket_thickness", "1.40 mm", ("1.0 mm", "1.8 mm")),
            figure("engine.piston_assembly_mass", "1900 g", ("1500 g", "2500 g")),
            figure("engine.rod_mass", "2300 g", ("1900 g", "3000 g")),
            figure("engine.intake.runner_diameter", "48 mm", ("42 mm", "56 mm")),
        ],
        iron: &[
            figure("engine.chamber_volume", "0 cc", ("0 cc", "4 cc")),
            figure("engine.intake.valve_diameter", "34 mm", ("30 mm", "39 mm")),
            figure("engine.exhaust.valve_diameter", "32 mm", ("29 mm", "37 mm")),
        ],
        aluminium: &[],
        street: [1300.0, 3100.0, 2900.0, 3200.0],
    },
    Family {
        kind: FamilyKind::DieselV8,
        title: "Diesel V8",
        about: "About 6.6 litres, boosted, two valves a port on bridges, flat deck and crown.",
        uses: DIESEL_USES,
        heads: EITHER,
        figures: &[
            figure("engine.bore", "103 mm", ("95 mm", "108 mm")),
            figure("engine.stroke", "99 mm", ("92 mm", "108 mm")),
            figure("engine.rod_length", "163 mm", ("155 mm", "180 mm")),
            figure("engine.deck_clearance", "-0.30 mm", ("-0.70 mm", "0.20 mm")),
            figure("engine.gasket_thickness", "1.30 mm", ("0.9 mm", "1.7 mm")),
            figure("engine.piston_assembly_mass", "1250 g", ("950 g", "1600 g")),
            figure("engine.rod_mass", "1150 g", ("950 g", "1500 g")),
            figure("engine.intake.runner_diameter", "44 mm", ("38 mm", "52 mm")),
        ],
        iron: &[
            figure("engine.chamber_volume", "0 cc", ("0 cc", "4 cc")),
            figure("engine.intake.valve_diameter", "33 mm", ("29 mm", "36 mm")),
            figure("engine.exhaust.valve_diameter", "30 mm", ("27 mm", "34 mm")),
        ],
        aluminium: &[
            figure("engine.chamber_volume", "0 cc", ("0 cc", "4 cc")),
            figure("engine.intake.valve_diameter", "33 mm", ("29 mm", "36 mm")),
            figure("engine.exhaust.valve_diameter", "30 mm", ("27 mm", "34 mm")),
        ],
        street: [1500.0, 3300.0, 3000.0, 3400.0],
    },
];

/// What is asked of a petrol engine, what settles most first.
const ASKED_PETROL: &[&str] = &[
    "target.band_from",
    "target.band_to",
    "target.peak_power_at",
    "target.shift_at",
    "engine.bore",
    "engine.stroke",
    "engine.rod_length",
    "engine.chamber_volume",
    "engine.piston_volume",
    "engine.deck_clearance",
    "engine.gasket_thickness",
    "engine.gasket_bore",
    "engine.octane_ron",
    "engine.exhaust.manifold",
    "engine.intake.valve_diameter",
    "engine.exhaust.valve_diameter",
    "candidates[0].train.lifter.kind",
    "candidates[0].train.rocker.ratio",
];

/// The same of a diesel.
const ASKED_DIESEL: &[&str] = &[
    "target.band_from",
    "target.band_to",
    "target.peak_power_at",
    "target.shift_at",
    "engine.bore",
    "engine.stroke",
    "engine.rod_length",
    "engine.piston_volume",
    "engine.deck_clearance",
    "engine.gasket_thickness",
    "engine.gasket_bore",
    "engine.smoke_air_fuel",
    "engine.exhaust.manifold",
    "engine.intake.valve_diameter",
    "engine.intake.face_recess",
    "engine.exhaust.valve_diameter",
    "engine.exhaust.face_recess",
    "candidates[0].train.rocker.ratio",
];

impl Family {
    /// Fields that are asked for first, what settles most first.
    pub const fn asked(&self) -> &'static [&'static str] {
        if self.is_diesel() { ASKED_DIESEL } else { ASKED_PETROL }
    }
}

/// What a use makes of a petrol build.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct UseFigures {
    /// Its band over that of the street build: band from, and the upper speeds.
    pub speeds: (f64, f64),
    /// Compression wanted.
    pub compression: f64,
    /// Fuel as the pump or the drum says.
    pub octane: &'static str,
    /// Vacuum wanted at idle; `None` where nobody asks.
    pub idle_vacuum: Option<&'static str>,
    /// Idle speed.
    pub idle_at: &'static str,
    /// Missed shift, or a propeller that draws air.
    pub overspeed: &'static str,
    /// Exhaust.
    pub manifold: &'static str,
    /// Runner, in.
    pub runner: f64,
    /// Plenum, litres.
    pub plenum: f64,
    /// Pocket depth, in.
    pub pocket: f64,
    /// Air for one of fuel.
    pub air_fuel: f64,
    /// Kind of the intake manifold.
    pub intake_manifold: &'static str,
    /// Inlet depression at the speed of peak power: an air box in a vehicle, a flame arrester afloat, a scoop.
    pub inlet: &'static str,
    /// Back pressure there: silencers, a wet exhaust, open pipes.
    pub back: &'static str,
    /// What the crank drives.
    pub accessories: &'static str,
}

/// The figures of a use (common practice, no source).
pub const fn petrol_use(used_for: Use) -> UseFigures {
    let street = UseFigures {
        speeds: (1.0, 1.0),
        compression: 9.2,
        octane: "91 (R+M)/2",
        idle_vacuum: Some("14 inHg"),
        idle_at: "750 rpm",
        overspeed: "500 rpm",
        manifold: "headers",
        runner: 10.0,
        plenum: 2.2,
        pocket: 0.150,
        air_fuel: 12.8,
        intake_manifold: "dual_plane",
        inlet: "2.5 kPa",
        back: "10 kPa",
        accessories: "all",
    };
    match used_for {
        Use::Street => street,
        Use::Tow | Use::Work => UseFigures {
            speeds: (0.85, 0.88),
            compression: 9.0,
            idle_vacuum: Some("16 inHg"),
            idle_at: "700 rpm",
            manifold: "cast",
            runner: 12.0,
            ..street
        },
        Use::Marine => UseFigures {
            speeds: (1.4, 0.92),
            compression: 9.0,
            idle_vacuum: Some("15 inHg"),
            idle_at: "700 rpm",
            manifold: "water_jacketed",
            inlet: "0.8 kPa",
            back: "7 kPa",
            ..street
        },
        Use::Circuit => UseFigures {
            speeds: (2.2, 1.2),
            compression: 10.4,
            octane: "102 RON",
            idle_vacuum: None,
            idle_at: "1000 rpm",
            runner: 7.5,
            plenum: 3.0,
            pocket: 0.230,
            intake_manifold: "single_plane",
            inlet: "0.5 kPa",
            back: "3 kPa",
            accessories: "oil_pump",
            ..street
        },
        Use::Strip => UseFigures {
            speeds: (2.5, 1.3),
            compression: 11.7,
            octane: "108 RON",
            idle_vacuum: None,
            idle_at: "1100 rpm",
            runner: 6.5,
            plenum: 3.5,
            pocket: 0.260,
            air_fuel: 12.6,
            intake_manifold: "single_plane",
            inlet: "0 kPa",
            back: "0 kPa",
            accessories: "oil_pump",
            ..street
        },
    }
}
