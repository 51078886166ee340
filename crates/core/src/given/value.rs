//! How a field of the document becomes a value: quantities in SI, words as enums, tables as shared slices.

use crate::document::Node;
use crate::quantity::{Angle, Dimension, Length, Mass, OfDimension, Pressure, Speed};
use crate::words::{self, Word};
use std::fmt;
use std::hash::{DefaultHasher, Hasher};
use std::sync::Arc;

/// What a given field may be.
pub trait Value: Sized {
    /// From the document; `None` when it is not given and has no default.
    fn read(node: &Node<'_>, key: &str) -> Option<Self>;
    /// As one number, SI for quantities; `None` for what is no number.
    fn number(&self) -> Option<f64> {
        None
    }
    /// The value of that number.
    fn from_number(_: f64) -> Option<Self> {
        None
    }
    /// How large it is where it can spread: the number itself; of a table the largest of its second column.
    fn size(&self) -> Option<f64> {
        self.number()
    }
    /// The same further by so much: a number as it is; the second column of a table, all alike for angles and in proportion to
    /// the largest for loads.
    fn shifted(&self, by: f64) -> Option<Self> {
        Self::from_number(self.number()? + by)
    }
}

impl<Q: OfDimension> Value for Q {
    fn read(node: &Node<'_>, key: &str) -> Option<Self> {
        node.quantity(key)
    }
    fn number(&self) -> Option<f64> {
        Some(self.to_si())
    }
    fn from_number(si: f64) -> Option<Self> {
        Some(Self::of_si(si))
    }
}

impl Value for f64 {
    fn read(node: &Node<'_>, key: &str) -> Option<Self> {
        node.number(key)
    }
    fn number(&self) -> Option<f64> {
        Some(*self)
    }
    fn from_number(number: f64) -> Option<Self> {
        Some(number)
    }
}

/// The choices of the document.
macro_rules! choices {
    ($($name:ident),+ $(,)?) => {$(
        impl Value for words::$name {
            fn read(node: &Node<'_>, key: &str) -> Option<Self> {
                Self::from_word(node.word(key)?)
            }
        }
    )+};
}

choices!(
    LifterKind,
    LifterVariant,
    AntiRotation,
    PreloadSchool,
    LightMetal,
    RodMaterial,
    Casting,
    CamDrive,
    ChainRows,
    Snout,
    DistributorGear,
    Core,
    GroundFor,
    CamGear,
    Mount,
    Tip,
    RockerGeometry,
    ValveMaterial,
    Guide,
    SpringForm,
    Wire,
    Layout,
    Combustion,
    FuelKind,
    Induction,
    ExhaustManifold,
    IntakeManifold,
    MixtureKind,
    Accessories,
    FaceSpot,
    ChargerKind,
    ClearanceSchool,
    PullAir,
    CalibratedBy,
    DynoKind,
);

/// A name people gave; only shown, never computed with.
impl Value for Arc<str> {
    fn read(node: &Node<'_>, key: &str) -> Option<Self> {
        node.word(key).map(Self::from)
    }
}

/// A list of quantities.
impl<Q: OfDimension> Value for Arc<[Q]> {
    fn read(node: &Node<'_>, key: &str) -> Option<Self> {
        node.quantities(key).map(Self::from)
    }
}

/// A table of two columns.
pub type Rows<A, B> = Arc<[(A, B)]>;

impl<A: OfDimension, B: OfDimension> Value for Rows<A, B> {
    fn read(node: &Node<'_>, key: &str) -> Option<Self> {
        node.rows(key).map(Self::from)
    }
    fn size(&self) -> Option<f64> {
        matches!(B::DIMENSION, Dimension::Angle | Dimension::Force).then_some(())?;
        self.iter().map(|(_, own)| own.to_si().abs()).reduce(f64::max)
    }
    fn shifted(&self, by: f64) -> Option<Self> {
        let largest = self.size().filter(|largest| *largest > 0.0)?;
        let share = |own: f64| if B::DIMENSION == Dimension::Force { own / largest } else { 1.0 };
        Some(self.iter().map(|(at, own)| (*at, B::of_si(own.to_si() + by * share(own.to_si())))).collect())
    }
}

/// A list of plain numbers.
impl Value for Arc<[f64]> {
    fn read(node: &Node<'_>, key: &str) -> Option<Self> {
        node.numbers(key).map(Self::from)
    }
}

/// Lists of plain numbers.
impl Value for Arc<[Vec<f64>]> {
    fn read(node: &Node<'_>, key: &str) -> Option<Self> {
        node.number_lists(key).map(Self::from)
    }
}

/// Checks of one flank: height, and crank angle between it and full lift.
#[derive(Debug, Clone, PartialEq)]
pub struct FlankChecks(pub Rows<Length, Angle>);

impl Value for FlankChecks {
    fn read(node: &Node<'_>, key: &str) -> Option<Self> {
        let flank = node.has(key).then(|| node.child(key))?;
        flank.rows("checks").map(|rows| Self(rows.into()))
    }
    fn size(&self) -> Option<f64> {
        self.0.size()
    }
    fn shifted(&self, by: f64) -> Option<Self> {
        self.0.shifted(by).map(Self)
    }
}

/// A measured lobe: cam degrees and follower lift. Its `Debug` form is a digest, since keys of stages are made of it.
#[derive(Clone, PartialEq)]
pub struct Profile {
    points: Rows64,
    digest: u64,
}

type Rows64 = Arc<[(f64, Length)]>;

impl Profile {
    /// A profile of these points.
    pub fn new(points: Vec<(f64, Length)>) -> Self {
        let mut hasher = DefaultHasher::new();
        for (deg, lift) in &points {
            hasher.write_u64(deg.to_bits());
            hasher.write_u64(lift.si().to_bits());
        }
        Self { points: points.into(), digest: hasher.finish() }
    }

    /// Cam degrees and lift.
    pub fn points(&self) -> &[(f64, Length)] {
        &self.points
    }
}

impl fmt::Debug for Profile {
    fn fmt(&self, f: &mut fmt::Formatter<'_>) -> fmt::Result {
        write!(f, "Profile({}, {:x})", self.points.len(), self.digest)
    }
}

impl Value for Profile {
    fn read(node: &Node<'_>, key: &str) -> Option<Self> {
        let profile = node.has(key).then(|| node.child(key))?;
        let (angles, lifts) = (profile.numbers("cam_deg")?, profile.quantities("lift")?);
        Some(Self::new(angles.into_iter().zip(lifts).collect()))
    }
}

/// One row of the plan's boost table.
#[derive(Debug, Clone, PartialEq)]
pub struct BoostRow {
    /// Speed.
    pub at: Speed,
    /// Gauge pressure of the manifold.
    pub manifold: Pressure,
    /// Gauge pressure ahead of the turbine, where it is given.
    pub drive: Option<Pressure>,
    /// Name of the level.
    pub level: Option<Arc<str>>,
}

impl Value for Arc<[BoostRow]> {
    fn read(node: &Node<'_>, key: &str) -> Option<Self> {
        let row = |row: &Node<'_>| {
            Some(BoostRow {
                at: row.quantity("at")?,
                manifold: row.quantity("manifold")?,
                drive: row.quantity("drive"),
                level: row.word("level").map(Arc::from),
            })
        };
        node.has(key).then(|| node.children(key).iter().filter_map(row).collect())
    }
}

/// Diesel fuel for each stroke over speed.
#[derive(Debug, Clone, PartialEq)]
pub struct Fuelling(pub Rows<Speed, Mass>);

impl Value for Fuelling {
    fn read(node: &Node<'_>, key: &str) -> Option<Self> {
        let row = |row: &Node<'_>| Some((row.quantity("at")?, row.quantity("fuel")?));
        node.has(key).then(|| Self(node.children(key).iter().filter_map(row).collect()))
    }
}
