//! Places of the document without their texts: which object, which key, seen from which side.

use crate::document::Side;

/// An object of the document that a candidate is resolved from.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Hash, PartialOrd, Ord)]
#[allow(missing_docs)] // Each is the object of that name in the table of fields.
pub enum Of {
    Build,
    Target,
    Rules,
    Ambient,
    Engine,
    Induction,
    Port,
    Pocket,
    Collector,
    Cam,
    Events,
    Lobe,
    Clay,
    Lifter,
    Pushrod,
    PreloadWork,
    Matching,
    Rocker,
    Bridge,
    Valve,
    Readings,
    Retainer,
    Spring,
    Heights,
    Pull,
    Calibration,
    TrainFit,
    Growth,
}

impl Of {
    /// Every object.
    pub const ALL: [Self; 28] = [
        Self::Build,
        Self::Target,
        Self::Rules,
        Self::Ambient,
        Self::Engine,
        Self::Induction,
        Self::Port,
        Self::Pocket,
        Self::Collector,
        Self::Cam,
        Self::Events,
        Self::Lobe,
        Self::Clay,
        Self::Lifter,
        Self::Pushrod,
        Self::PreloadWork,
        Self::Matching,
        Self::Rocker,
        Self::Bridge,
        Self::Valve,
        Self::Readings,
        Self::Retainer,
        Self::Spring,
        Self::Heights,
        Self::Pull,
        Self::Calibration,
        Self::TrainFit,
        Self::Growth,
    ];

    /// Whether intake and exhaust may each have their own.
    pub const fn is_sided(self) -> bool {
        matches!(
            self,
            Self::Port
                | Self::Pocket
                | Self::Lobe
                | Self::Clay
                | Self::Lifter
                | Self::Pushrod
                | Self::PreloadWork
                | Self::Rocker
                | Self::Bridge
                | Self::Valve
                | Self::Readings
                | Self::Retainer
                | Self::Spring
                | Self::Heights
        )
    }
}

/// One field, seen from one side. What has no sides is seen from the intake's, so that equal places are equal.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Hash)]
pub struct Place {
    /// The object.
    pub of: Of,
    /// The key in it.
    pub key: &'static str,
    /// Seen from.
    pub side: Side,
}

impl Place {
    /// The field `key` of `of` as `side` sees it.
    pub const fn new(of: Of, key: &'static str, side: Side) -> Self {
        Self { of, key, side: if of.is_sided() { side } else { Side::Intake } }
    }
}

/// The fields a computation lacks.
#[derive(Debug, Clone, PartialEq, Eq, Default)]
pub struct Missing(pub Vec<Place>);

/// Gathers every missing field of one computation before it gives up.
#[derive(Default)]
pub struct Needs(Vec<Place>);

impl Needs {
    /// `value`; where there is none its place is noted and the default stands in until [`Self::met`].
    pub fn take<T: Default>(&mut self, value: Option<T>, place: Place) -> T {
        self.note(value, place).unwrap_or_default()
    }

    /// `value`, its place noted when it is `None`.
    pub fn note<T>(&mut self, value: Option<T>, place: Place) -> Option<T> {
        if value.is_none() {
            self.0.push(place);
        }
        value
    }

    /// `value` unless anything was missing.
    ///
    /// # Errors
    /// Every place that was noted.
    pub fn met<T>(self, value: T) -> Result<T, Missing> {
        if self.0.is_empty() { Ok(value) } else { Err(Missing(self.0)) }
    }
}

/// `need!(needs, rocker.pivot_to_tip)`: the value of a given field, or its place noted.
macro_rules! need {
    ($needs:expr, $object:ident . $key:ident) => {
        $needs.take($object.$key.clone(), $object.at(stringify!($key)))
    };
}
pub(crate) use need;
