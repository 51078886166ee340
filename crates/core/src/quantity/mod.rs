//! Typed quantities: SI and radians inside, what people write outside.
//!
//! A [`Dimension`] says what a text may mean, [`parse`] turns the text into SI, [`Shown`] turns SI
//! back into the two displays (inch and metric). The typed values ([`Length`], [`Force`], ...) are
//! what crosses a module's door; inside a module plain `f64` carry their unit in the name.

mod display;
mod text;
mod units;

pub use display::{
    Scale, Shown, UnitSystem, format_finer, format_si, scale, shown, shown_fine, shown_small, shown_stress,
    shown_vacuum,
};
pub use text::{TextFault, parse, parse_bare, restate, restate_finer, with_unit};
pub(crate) use units::{CFM, INCH, INCH_MERCURY, POUND, POUND_FORCE};
pub use units::{Dimension, Unit};

/// Declares one typed quantity over `f64` in SI with its named constructors and readers.
macro_rules! quantity {
    ($(#[$doc:meta])* $name:ident, $dimension:ident { $($(#[$unit_doc:meta])* $make:ident / $read:ident = $factor:expr;)+ }) => {
        $(#[$doc])*
        #[derive(Debug, Clone, Copy, PartialEq, PartialOrd, Default)]
        pub struct $name(f64);

        impl $name {
            /// The value from its SI magnitude.
            pub const fn from_si(si: f64) -> Self { Self(si) }
            /// The SI magnitude.
            pub const fn si(self) -> f64 { self.0 }
            $(
                $(#[$unit_doc])*
                pub fn $make(value: f64) -> Self { Self(value * $factor) }
                $(#[$unit_doc])*
                pub fn $read(self) -> f64 { self.0 / $factor }
            )+
        }

        impl OfDimension for $name {
            const DIMENSION: Dimension = Dimension::$dimension;
            fn of_si(si: f64) -> Self { Self(si) }
            fn to_si(self) -> f64 { self.0 }
        }
    };
}

/// A typed quantity that a document field of the same dimension can be read into.
pub trait OfDimension: Copy {
    /// The dimension a field must have to be read as this type.
    const DIMENSION: Dimension;
    /// The value from its SI magnitude.
    fn of_si(si: f64) -> Self;
    /// The SI magnitude.
    fn to_si(self) -> f64;
}

quantity! {
    /// A length or a lift; SI metre.
    Length, Length {
        /// Millimetres.
        mm / as_mm = 1e-3;
        /// International inches (25.4 mm exactly).
        inches / as_inches = units::INCH;
    }
}
quantity! {
    /// An angle; SI radian. Crank angle unless a name says cam angle.
    Angle, Angle {
        /// Degrees.
        deg / as_deg = units::DEGREE;
    }
}
quantity! {
    /// A force; SI newton.
    Force, Force {
        /// Pounds-force.
        lbf / as_lbf = units::POUND_FORCE;
    }
}
quantity! {
    /// A spring rate; SI newton per metre.
    SpringRate, SpringRate {
        /// Newtons per millimetre.
        n_per_mm / as_n_per_mm = 1e3;
    }
}
quantity! {
    /// A pressure or a stress; SI pascal. Gauge or absolute as the field says.
    Pressure, Pressure {
        /// Kilopascals.
        kpa / as_kpa = 1e3;
        /// Megapascals.
        mpa / as_mpa = 1e6;
    }
}
quantity! {
    /// A cross-section; SI square metre.
    Area, Area {
        /// Square metres.
        square_metres / as_square_metres = 1.0;
    }
}
quantity! {
    /// A mass; SI kilogram.
    Mass, Mass {
        /// Grams.
        grams / as_grams = 1e-3;
    }
}
quantity! {
    /// A volume; SI cubic metre.
    Volume, Volume {
        /// Cubic centimetres.
        cc / as_cc = 1e-6;
    }
}
quantity! {
    /// A volume flow; SI cubic metre per second.
    Flow, Flow {
        /// Cubic feet per minute.
        cfm / as_cfm = units::CFM;
    }
}
quantity! {
    /// A speed of the crank; SI radian per second.
    Speed, Speed {
        /// Revolutions per minute.
        rpm / as_rpm = units::RPM;
    }
}
quantity! {
    /// An absolute temperature; SI kelvin. A difference is not a `Temperature`.
    Temperature, Temperature {
        /// Kelvin.
        kelvin / as_kelvin = 1.0;
    }
}
quantity! {
    /// A torque at the crank; SI newton metre.
    Torque, Torque {
        /// Newton metres.
        newton_metres / as_newton_metres = 1.0;
    }
}
quantity! {
    /// Knock resistance of a fuel as its research octane number.
    Octane, Octane {
        /// Research octane number.
        ron / as_ron = 1.0;
    }
}
quantity! {
    /// An amount of money in the currency it was written in.
    Money, Money {
        /// The amount.
        amount / as_amount = 1.0;
    }
}
