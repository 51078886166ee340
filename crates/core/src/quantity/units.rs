//! The dimensions of a build document and the units people write them in.
//!
//! Factors are the exact definitions of the international yard and pound (1959) and of the
//! conventional columns of mercury (0 C) and water (60 F for flow benches is within 0.1 %; 4 C is
//! used here) in ISO 80000 and NIST SP 811, appendix B.8.

/// Metres in an international inch (exact).
pub const INCH: f64 = 0.0254;
/// Radians in a degree.
pub const DEGREE: f64 = std::f64::consts::PI / 180.0;
/// Newtons in a pound-force (exact: 0.45359237 kg x 9.80665 m/s2).
pub const POUND_FORCE: f64 = 0.453_592_37 * STANDARD_GRAVITY;
/// Standard gravity, m/s2 (exact).
pub const STANDARD_GRAVITY: f64 = 9.806_65;
/// Kilograms in an avoirdupois pound (exact).
pub const POUND: f64 = 0.453_592_37;
/// Pascals in a pound-force per square inch.
pub const PSI: f64 = POUND_FORCE / (INCH * INCH);
/// Cubic metres per second in a cubic foot per minute (exact).
pub const CFM: f64 = 0.3048 * 0.3048 * 0.3048 / 60.0;
/// Radians per second in a revolution per minute.
pub const RPM: f64 = std::f64::consts::PI / 30.0;
/// Pascals in a conventional inch of mercury, 0 C (NIST SP 811).
pub const INCH_MERCURY: f64 = 3386.389;
/// Pascals in a conventional inch of water, 4 C (NIST SP 811).
pub const INCH_WATER: f64 = 249.088_9;
/// Kelvin at zero Celsius.
pub const ZERO_CELSIUS: f64 = 273.15;

/// A unit as written: `si = value * factor + offset`.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Unit {
    /// How it is written; the first unit of a dimension that has a spelling is the one shown.
    pub symbol: &'static str,
    /// SI units in one of it.
    pub factor: f64,
    /// SI value of its zero; only temperatures have one.
    pub offset: f64,
}

const fn unit(symbol: &'static str, factor: f64) -> Unit {
    Unit { symbol, factor, offset: 0.0 }
}

/// What a quantity measures; decides which units its text may carry.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Hash)]
pub enum Dimension {
    /// Lengths and lifts.
    Length,
    /// Crank or cam angles.
    Angle,
    /// Forces.
    Force,
    /// Spring rates.
    SpringRate,
    /// Pressures and stresses.
    Pressure,
    /// Cross-sections.
    Area,
    /// Masses.
    Mass,
    /// Volumes.
    Volume,
    /// Volume flows.
    Flow,
    /// Crank speeds.
    Speed,
    /// Absolute temperatures.
    Temperature,
    /// Money; currencies are never converted.
    Money,
    /// Torques.
    Torque,
    /// Powers.
    Power,
    /// Knock resistance of a fuel; SI stands for research octane number.
    Octane,
    /// Second derivative of a lobe's lift; SI stands for metres per square of a cam degree.
    LobeAcceleration,
}

impl Unit {
    /// A number of this unit in SI.
    pub fn to_si(self, number: f64) -> f64 {
        number * self.factor + self.offset
    }
}

impl Dimension {
    /// Every dimension, for tests and tables.
    pub const ALL: [Self; 16] = [
        Self::Length,
        Self::Angle,
        Self::Force,
        Self::SpringRate,
        Self::Pressure,
        Self::Area,
        Self::Mass,
        Self::Volume,
        Self::Flow,
        Self::Speed,
        Self::Temperature,
        Self::Money,
        Self::Torque,
        Self::Power,
        Self::Octane,
        Self::LobeAcceleration,
    ];

    /// The accepted units.
    pub const fn units(self) -> &'static [Unit] {
        match self {
            Self::Length => LENGTH,
            Self::Angle => ANGLE,
            Self::Force => FORCE,
            Self::SpringRate => SPRING_RATE,
            Self::Pressure => PRESSURE,
            Self::Area => AREA,
            Self::Mass => MASS,
            Self::Volume => VOLUME,
            Self::Flow => FLOW,
            Self::Speed => SPEED,
            Self::Temperature => TEMPERATURE,
            Self::Money => MONEY,
            Self::Torque => TORQUE,
            Self::Power => POWER,
            Self::Octane => OCTANE,
            Self::LobeAcceleration => LOBE_ACCELERATION,
        }
    }

    /// The dimension as a builder says it, with its article.
    pub const fn noun(self) -> &'static str {
        match self {
            Self::Length => "a length",
            Self::Angle => "an angle",
            Self::Force => "a force",
            Self::SpringRate => "a spring rate",
            Self::Pressure => "a pressure",
            Self::Area => "a cross-section",
            Self::Mass => "a mass",
            Self::Volume => "a volume",
            Self::Flow => "a flow",
            Self::Speed => "a speed",
            Self::Temperature => "a temperature",
            Self::Money => "an amount of money",
            Self::Torque => "a torque",
            Self::Power => "a power",
            Self::Octane => "an octane number",
            Self::LobeAcceleration => "a lobe acceleration",
        }
    }

    /// The unit of a number that stands alone, for a dimension whose documents may hold plain numbers.
    pub fn bare(self) -> Option<Unit> {
        (self == Self::Octane).then_some(OCTANE[0])
    }

    /// The unit with this spelling; letter case counts only where it must (`mN` is not `MN`).
    pub fn find(self, symbol: &str) -> Option<Unit> {
        let exact = self.units().iter().find(|u| u.symbol == symbol);
        exact.or_else(|| self.units().iter().find(|u| u.symbol.eq_ignore_ascii_case(symbol))).copied()
    }
}

const LENGTH: &[Unit] = &[
    unit("in", INCH),
    unit("mm", 1e-3),
    unit("\"", INCH),
    unit("inch", INCH),
    unit("thou", INCH * 1e-3),
    unit("cm", 1e-2),
    unit("m", 1.0),
    unit("ft", 12.0 * INCH),
];
const ANGLE: &[Unit] = &[unit("deg", DEGREE), unit("°", DEGREE), unit("rad", 1.0)];
const FORCE: &[Unit] = &[
    unit("lbf", POUND_FORCE),
    unit("N", 1.0),
    unit("lb", POUND_FORCE),
    unit("lbs", POUND_FORCE),
    unit("kN", 1e3),
    unit("kgf", STANDARD_GRAVITY),
];
const SPRING_RATE: &[Unit] = &[
    unit("lbf/in", POUND_FORCE / INCH),
    unit("N/mm", 1e3),
    unit("lb/in", POUND_FORCE / INCH),
    unit("N/m", 1.0),
    unit("kgf/mm", STANDARD_GRAVITY * 1e3),
];
const PRESSURE: &[Unit] = &[
    unit("psi", PSI),
    unit("kPa", 1e3),
    unit("bar", 1e5),
    unit("mbar", 1e2),
    unit("hPa", 1e2),
    unit("MPa", 1e6),
    unit("GPa", 1e9),
    unit("Pa", 1.0),
    unit("inHg", INCH_MERCURY),
    unit("inH2O", INCH_WATER),
    unit("kpsi", PSI * 1e3),
];
const AREA: &[Unit] =
    &[unit("in2", INCH * INCH), unit("cm2", 1e-4), unit("mm2", 1e-6), unit("sq in", INCH * INCH), unit("m2", 1.0)];
const MASS: &[Unit] =
    &[unit("g", 1e-3), unit("kg", 1.0), unit("mg", 1e-6), unit("lb", POUND), unit("oz", POUND / 16.0)];
const VOLUME: &[Unit] =
    &[unit("cc", 1e-6), unit("cm3", 1e-6), unit("ml", 1e-6), unit("l", 1e-3), unit("in3", INCH * INCH * INCH)];
const FLOW: &[Unit] = &[unit("cfm", CFM), unit("l/s", 1e-3), unit("m3/s", 1.0)];
const SPEED: &[Unit] = &[unit("rpm", RPM), unit("1/min", RPM)];
const TEMPERATURE: &[Unit] = &[
    Unit { symbol: "C", factor: 1.0, offset: ZERO_CELSIUS },
    Unit { symbol: "F", factor: 5.0 / 9.0, offset: ZERO_CELSIUS - 32.0 * 5.0 / 9.0 },
    unit("K", 1.0),
];
const TORQUE: &[Unit] = &[
    unit("lbf ft", POUND_FORCE * 12.0 * INCH),
    unit("N m", 1.0),
    unit("lb-ft", POUND_FORCE * 12.0 * INCH),
    unit("ft-lb", POUND_FORCE * 12.0 * INCH),
    unit("Nm", 1.0),
];
/// Watts in a mechanical horsepower: 550 foot pounds-force a second.
const HORSEPOWER: f64 = 550.0 * POUND_FORCE * 12.0 * INCH;
const POWER: &[Unit] = &[unit("hp", HORSEPOWER), unit("kW", 1e3), unit("W", 1.0), unit("PS", 75.0 * STANDARD_GRAVITY)];
/// Research octane number above the pump's (R+M)/2: half the sensitivity of pump petrol, 8 to 10 (common practice,
/// no source).
const RON_OVER_PUMP: f64 = 4.5;
const fn pump(symbol: &'static str) -> Unit {
    Unit { symbol, factor: 1.0, offset: RON_OVER_PUMP }
}
const OCTANE: &[Unit] = &[unit("RON", 1.0), pump("(R+M)/2"), pump("AKI"), pump("pump"), pump("R+M/2")];
const LOBE_ACCELERATION: &[Unit] =
    &[unit("in/deg2", INCH), unit("mm/deg2", 1e-3), unit("in/deg²", INCH), unit("mm/deg²", 1e-3)];
const MONEY: &[Unit] = &[unit("USD", 1.0), unit("EUR", 1.0), unit("GBP", 1.0)];
