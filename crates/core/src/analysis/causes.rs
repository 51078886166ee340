//! What makes torque fall away, go flat, sag, scatter or stay low: causes, how likely each is before anything is computed, the test that
//! tells it from the others and what that costs, and what it is in the model (common practice, no source).

use crate::candidate::Resolved;
use crate::document::Side;
use crate::given::Given;
use crate::pulls::symptoms::Symptom;
use crate::quantity::Pressure;

/// What a symptom is of.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Sign {
    /// Steeper fall past the peak.
    Nose,
    /// Power that stands still.
    Flat,
    /// Less and less with speed.
    Fades,
    /// Low in one stretch.
    Sag,
    /// Low all over.
    Low,
    /// Points that scatter.
    Scatter,
}

impl Sign {
    /// Of a symptom.
    pub const fn of(symptom: &Symptom) -> Self {
        match symptom {
            Symptom::NoseOver { .. } => Self::Nose,
            Symptom::Flat { .. } => Self::Flat,
            Symptom::Fades { .. } => Self::Fades,
            Symptom::Sag { .. } => Self::Sag,
            Symptom::Low { .. } => Self::Low,
            Symptom::Scatter { .. } => Self::Scatter,
        }
    }
}

/// A cause.
pub struct Cause {
    /// Stable identifier.
    pub id: &'static str,
    /// What it is.
    pub title: &'static str,
    /// How often it is behind each sign, against the others.
    pub behind: &'static [(Sign, f64)],
    /// Whether this engine can have it; `true` for pulls on rollers.
    pub applies: fn(&Resolved, bool) -> bool,
    /// Why it makes that.
    pub because: &'static str,
    /// The test that tells it from the others.
    pub test: &'static str,
    /// Minutes it takes.
    pub minutes: u32,
    /// Money, USD.
    pub usd: u32,
    /// What was tried of it in the model, in words.
    pub tried: &'static str,
    /// Whether it acts by loss of control. The model moves valves that float, and what that does to torque is where it is least sure: what
    /// it does not show is not held against such a cause.
    pub by_control: bool,
    /// Makes it so; `None` where the model cannot or the document does not say what it would change.
    pub made: Option<fn(&mut Given) -> Option<()>>,
}

const fn always(_: &Resolved, _: bool) -> bool {
    true
}

const fn on_rollers(_: &Resolved, on_rollers: bool) -> bool {
    on_rollers
}

fn is_hydraulic(resolved: &Resolved, _: bool) -> bool {
    resolved.train(Side::Intake).lifter.kind.is_some_and(crate::words::LifterKind::is_hydraulic)
}

fn is_solid(resolved: &Resolved, _: bool) -> bool {
    resolved.train(Side::Intake).lifter.kind.is_some_and(|kind| !kind.is_hydraulic())
}

fn is_spark(resolved: &Resolved, _: bool) -> bool {
    !resolved.given.is_diesel()
}

/// Every spring of both sides with this share of its load.
fn springs(given: &mut Given) -> Option<()> {
    const LOST: f64 = 0.15;
    let mut done = None;
    for side in Side::BOTH {
        let place = given.train(side).spring.at("points");
        let size = given.sizes().into_iter().find(|(own, _)| *own == place).map(|own| own.1);
        if let Some(size) = size {
            given.shift(place, -LOST * size)?;
            done = Some(());
        }
    }
    done
}

/// Preload at both sides, m.
fn preload(given: &mut Given) -> Option<()> {
    const DEEP: f64 = 0.060 * 0.0254;
    for side in Side::BOTH {
        let place = given.train(side).lifter.at("preload");
        given.set(place, DEEP)?;
    }
    Some(())
}

fn lash(given: &mut Given, by: f64) -> Option<()> {
    for side in Side::BOTH {
        let lifter = &given.train(side).lifter;
        let (place, now) = (lifter.at("lash"), lifter.lash?.si());
        given.set(place, (now + by).max(0.0))?;
    }
    Some(())
}

fn opened(given: &mut Given) -> Option<()> {
    lash(given, 0.006 * 0.0254)
}

fn closed(given: &mut Given) -> Option<()> {
    lash(given, -0.006 * 0.0254)
}

fn late(given: &mut Given) -> Option<()> {
    let now = given.engine.spark_retard.map_or(0.0, |own| own.si());
    given.engine.spark_retard = Some(crate::quantity::Angle::from_si(now + 6_f64.to_radians()));
    Some(())
}

fn lean(given: &mut Given) -> Option<()> {
    let now = given.engine.air_fuel_ratio?;
    given.engine.air_fuel_ratio = Some(1.2 * now);
    Some(())
}

fn inlet(given: &mut Given) -> Option<()> {
    let now = given.induction.inlet_depression.map_or(0.0, Pressure::si);
    given.induction.inlet_depression = Some(Pressure::from_si(now + 3e3));
    Some(())
}

fn exhaust(given: &mut Given) -> Option<()> {
    let now = given.primary.back_pressure.map_or(0.0, Pressure::si);
    given.primary.back_pressure = Some(Pressure::from_si(now + 15e3));
    Some(())
}

fn lobe(given: &mut Given) -> Option<()> {
    for side in Side::BOTH {
        let own = given.lobe(side);
        let (place, now) = (own.at("lobe_lift"), own.lobe_lift?.si());
        given.set(place, 0.95 * now)?;
    }
    Some(())
}

/// All of them.
pub const CAUSES: &[Cause] = &[
    Cause {
        id: "preload",
        title: "Preload of the hydraulic lifters",
        behind: &[(Sign::Flat, 4.0), (Sign::Nose, 2.0), (Sign::Scatter, 1.0)],
        applies: is_hydraulic,
        because: "After other parts were fitted to a train that cannot be adjusted, plungers stand deeper than they did; once they pump up they hold valves open. It is taken for spark or fuel.",
        test: "Plunger travel at one valve of each side, on the base circle; then pull with the preload near zero, or with shorter pushrods",
        minutes: 45,
        usd: 0,
        tried: "preload .060 in",
        by_control: true,
        made: Some(preload),
    },
    Cause {
        id: "springs",
        title: "Tired valve springs",
        behind: &[(Sign::Fades, 0.7), (Sign::Nose, 4.0), (Sign::Flat, 1.5)],
        applies: always,
        because: "Control is lost past the peak first: peak power may be what it was, the fall behind it is steeper.",
        test: "A spring of each side on the tester at its installed height, guard closed",
        minutes: 60,
        usd: 0,
        tried: "springs at 85 %",
        by_control: true,
        made: Some(springs),
    },
    Cause {
        id: "lash_open",
        title: "Lash that has opened",
        behind: &[(Sign::Fades, 0.5), (Sign::Nose, 1.0), (Sign::Low, 1.0)],
        applies: is_solid,
        because: "Valves open later and less, close harder and bounce.",
        test: "Lash of every valve, hot, as it was set",
        minutes: 40,
        usd: 0,
        tried: "lash .006 in wider",
        by_control: true,
        made: Some(opened),
    },
    Cause {
        id: "lash_closed",
        title: "Lash that has closed",
        behind: &[(Sign::Low, 1.5), (Sign::Sag, 0.5)],
        applies: is_solid,
        because: "A seat that sinks takes its lash; the valve seals late or not at all, and burns.",
        test: "Lash of every valve, hot; leak-down of the cylinder where it is gone",
        minutes: 50,
        usd: 0,
        tried: "lash .006 in tighter",
        by_control: false,
        made: Some(closed),
    },
    Cause {
        id: "spark",
        title: "Late or weak spark",
        behind: &[(Sign::Fades, 0.7), (Sign::Scatter, 3.0), (Sign::Flat, 1.0), (Sign::Low, 1.5), (Sign::Nose, 0.7)],
        applies: is_spark,
        because: "A coil or plug that gives out with pressure and speed misses single cycles; a drive that flutters retards all of them.",
        test: "Timing light at that speed; new plugs with a smaller gap, pulled again",
        minutes: 20,
        usd: 40,
        tried: "spark 6 deg later",
        by_control: false,
        made: Some(late),
    },
    Cause {
        id: "fuel",
        title: "Fuel that does not follow",
        behind: &[(Sign::Fades, 0.7), (Sign::Scatter, 2.0), (Sign::Flat, 1.0), (Sign::Sag, 3.0), (Sign::Nose, 0.7)],
        applies: is_spark,
        because: "It goes lean where flow is greatest or where a circuit hands over to the next.",
        test: "Air-fuel ratio and fuel pressure over speed beside the torque",
        minutes: 20,
        usd: 0,
        tried: "a fifth leaner",
        by_control: false,
        made: Some(lean),
    },
    Cause {
        id: "inlet",
        title: "Inlet that throttles",
        behind: &[(Sign::Fades, 2.0), (Sign::Nose, 1.0), (Sign::Low, 1.0)],
        applies: always,
        because: "A filter, a hat or a blade that does not open costs with the square of the flow.",
        test: "Vacuum behind the throttle at full load; a pull with the filter off",
        minutes: 15,
        usd: 0,
        tried: "3 kPa more depression",
        by_control: false,
        made: Some(inlet),
    },
    Cause {
        id: "exhaust",
        title: "Exhaust that holds back",
        behind: &[(Sign::Fades, 2.0), (Sign::Nose, 1.5), (Sign::Low, 1.5), (Sign::Flat, 0.5)],
        applies: always,
        because: "A collapsed pipe or a silencer costs with the square of the flow and leaves burned gas behind.",
        test: "A gauge in the collector at full load, or a pull with the pipes open",
        minutes: 30,
        usd: 0,
        tried: "15 kPa more back pressure",
        by_control: false,
        made: Some(exhaust),
    },
    Cause {
        id: "lobe",
        title: "Worn lobes or lifters",
        behind: &[(Sign::Fades, 0.7), (Sign::Low, 2.0), (Sign::Nose, 0.7)],
        applies: always,
        because: "Lift is lost all over, by one cylinder after another.",
        test: "Lobe lift by dial at every pushrod",
        minutes: 60,
        usd: 0,
        tried: "5 % less lift",
        by_control: false,
        made: Some(lobe),
    },
    Cause {
        id: "slip",
        title: "Converter, clutch or tyres that slip",
        behind: &[(Sign::Fades, 0.7), (Sign::Flat, 1.5), (Sign::Sag, 1.0), (Sign::Nose, 0.5)],
        applies: on_rollers,
        because: "On rollers the speed of the engine runs ahead of that of the wheels where torque is greatest.",
        test: "Speed of the engine over that of the rollers; straps tighter",
        minutes: 10,
        usd: 0,
        tried: "",
        by_control: false,
        made: None,
    },
    Cause {
        id: "dyno",
        title: "The dyno itself",
        behind: &[(Sign::Low, 1.5), (Sign::Scatter, 0.5)],
        applies: always,
        because: "A load cell that drifted or an air that was noted wrong lowers every pull alike.",
        test: "A known weight on the arm; barometer and temperature read again",
        minutes: 10,
        usd: 0,
        tried: "",
        by_control: false,
        made: None,
    },
];
