//! Choices of the train on which practitioners differ, with what the figures of this build say to each.

use crate::candidate::Resolved;
use crate::choose::titanium_valve;
use crate::document::Side;
use crate::quantity::{Dimension, Length, Mass, Shown, Speed, shown};
use crate::report::{ChoiceReport, DynamicsReport, DynamicsSide, SpeedBought, Topic};
use crate::words::{Mount, Tip, ValveMaterial, Word};

/// Lift to which plain pads go, and to which on a stiff shaft, in (common practice, no source).
const PAD_LIFT: (f64, f64) = (0.640, 0.660);
/// What a titanium valve costs over a stainless one (common practice, no source).
const TITANIUM_PRICE: &str = "five to six times the price";

/// What is said of the valve that loses control first.
pub fn choices(resolved: &Resolved, side: Side, report: &DynamicsReport) -> Vec<ChoiceReport> {
    let own = match side {
        Side::Intake => &report.intake,
        Side::Exhaust => &report.exhaust,
    };
    let asked = Asked { resolved, side, report, own };
    let choice = |topic: Topic, question: &str, says: Shown, schools: [&str; 2]| ChoiceReport {
        topic,
        question: question.to_owned(),
        says,
        schools: schools.map(str::to_owned).to_vec(),
    };
    vec![
        choice(
            Topic::Lifter,
            "Hydraulic or solid lifter",
            asked.lifter(),
            [
                "the gap between hydraulic and solid rollers is closing: nothing to set, quiet",
                "a solid roller is far ahead, on a head developed for its lift; lash is set and looked at",
            ],
        ),
        choice(
            Topic::Valve,
            "Material of the valve",
            asked.valve(),
            [
                "stainless for cost and durability",
                "titanium on the intake; on the exhaust nickel alloy for heat and boost, sodium-filled without boost",
            ],
        ),
        choice(
            Topic::Tip,
            "Roller tip or plain pad",
            asked.tip(),
            ["a roller tip spares the guide, and bronze guides want it", "a light plain tip gains limiting speed"],
        ),
        choice(
            Topic::Pivot,
            "Studs or a shaft",
            asked.pivot(),
            [
                "series rockers are fine far up with good pivots",
                "they are unstable past medium speed and need a common shaft",
            ],
        ),
        choice(
            Topic::Spring,
            "More load or less mass",
            asked.spring(),
            ["more open load with speed", "low mass and light springs"],
        ),
    ]
}

/// One valve with what is asked of it.
struct Asked<'a> {
    resolved: &'a Resolved,
    side: Side,
    report: &'a DynamicsReport,
    own: &'a DynamicsSide,
}

impl Asked<'_> {
    fn of(&self, topic: Topic) -> impl Iterator<Item = &SpeedBought> {
        self.report.what_buys_speed.iter().filter(move |bought| bought.topic == topic)
    }

    /// The change of these topics that buys most, in words.
    fn best(&self, topics: &[Topic]) -> String {
        let all = self.report.what_buys_speed.iter().filter(|bought| topics.contains(&bought.topic));
        let Some(best) = all.max_by(|a, b| a.gain_rpm.total_cmp(&b.gain_rpm)) else { return String::new() };
        format!("{} {}", best.change, gain(best))
    }

    /// Whether the plan needs more than there is.
    fn need(&self) -> String {
        let (Some(missed), Some([low, _])) = (self.report.missed_rpm, self.own.limiting_speed_band_rpm) else {
            return String::new();
        };
        if low >= missed {
            format!(
                "what is fitted holds past a missed shift at {missed:.0} rpm in nine draws of ten: the plan needs no more"
            )
        } else {
            format!("nine draws of ten hold to {low:.0} rpm, a missed shift turns it {missed:.0}: the plan needs more")
        }
    }

    fn lifter(&self) -> Shown {
        let lifter = &self.resolved.train(self.side).lifter;
        let solid = self.of(Topic::Lifter).find(|bought| bought.change.starts_with("solid"));
        let rated = lifter.rated_speed.map(Speed::as_rpm).zip(self.report.missed_rpm).map(|(rated, missed)| {
            let word = if rated < missed { "short of" } else { "beyond" };
            format!("it is rated to {rated:.0} rpm, {word} a missed shift")
        });
        let load = lifter.rated_load.map(|load| load.si());
        let reached = self.own.speed_rpm.iter().zip(&self.own.peak_pushrod_n);
        let reached = reached.filter(|(rpm, _)| self.report.missed_rpm.is_none_or(|missed| **rpm <= missed));
        let peak = reached.map(|(_, load)| *load).fold(0.0, f64::max);
        both(|read| {
            let mut parts = vec![lifter.kind.map_or_else(|| "Kind unknown".to_owned(), |kind| capital(&kind.spoken()))];
            parts.extend(rated.clone());
            parts.extend(load.map(|rated| {
                let force = |newton: f64| read(&shown(newton, Dimension::Force)).to_owned();
                format!("it bears {} in motion, rated {}", force(peak), force(rated))
            }));
            match solid {
                Some(solid) => parts.push(format!("a solid one at zero lash {}", gain(solid))),
                None if lifter.kind.is_some_and(|kind| kind.is_solid()) => {
                    parts.push("lash is heard, and set again as the plan's interval says".to_owned());
                }
                None => {}
            }
            parts.join("; ") + "."
        })
    }

    fn valve(&self) -> Shown {
        let valve = &self.resolved.train(self.side).valve;
        let head = self.resolved.port(self.side).valve_diameter;
        let boosted = self.resolved.boost().is_some_and(|(manifold, _)| manifold.si() > 0.0);
        let lighter = self.of(Topic::Valve).next();
        both(|read| {
            let mut parts = Vec::new();
            let grams = |kg: f64| read(&shown(kg, Dimension::Mass)).to_owned();
            let mass = valve.mass.map(Mass::si);
            let material = valve.material.map_or_else(|| "unknown".to_owned(), Word::spoken);
            parts.push(format!(
                "{} valve, {material}{}",
                capital(self.side.key()),
                mass.map_or_else(String::new, |kg| format!(", {}", grams(kg)))
            ));
            parts.extend(lighter.map(|bought| format!("ten grams less {}", gain(bought))));
            let titanium = head.map(|head| 1e-3 * titanium_valve(head.as_inches()));
            if let (Side::Intake, Some(mass), Some(titanium)) = (self.side, mass, titanium)
                && valve.material != Some(ValveMaterial::Titanium)
                && titanium < mass
            {
                parts.push(format!("titanium would weigh about {} at {TITANIUM_PRICE}", grams(titanium)));
            }
            if self.side == Side::Exhaust {
                parts.push(if boosted {
                    "boost makes its heat the first question: nickel alloy, never sodium".to_owned()
                } else {
                    "without boost its heat leaves stainless and sodium-filled stems open".to_owned()
                });
            }
            parts.join("; ") + "."
        })
    }

    fn tip(&self) -> Shown {
        let rocker = &self.resolved.train(self.side).rocker;
        let lift = self.resolved.side(self.side).most_lift().ok();
        let lighter = self.of(Topic::Tip).find(|bought| bought.field.is_some());
        let stiff = matches!(rocker.mount, Some(Mount::Shaft | Mount::PairedShaft));
        let most = if stiff { PAD_LIFT.1 } else { PAD_LIFT.0 };
        both(|read| {
            let length = |of: Length| read(&shown(of.si(), Dimension::Length)).to_owned();
            let mut parts = vec![match rocker.tip {
                Some(Tip::Roller) => "A roller is fitted".to_owned(),
                Some(Tip::Pad) => "A plain pad is fitted".to_owned(),
                None => "The tip is not known".to_owned(),
            }];
            parts.extend(lighter.map(|bought| format!("five grams less at the tip {}", gain(bought))));
            parts.extend(lift.map(|lift| {
                let word = if lift.as_inches() > most { "beyond" } else { "within" };
                format!("{} of lift is {word} the {} that plain pads go to", length(lift), length(Length::inches(most)))
            }));
            parts.join("; ") + "."
        })
    }

    fn pivot(&self) -> Shown {
        let mount = self.resolved.train(self.side).rocker.mount;
        let share = self.report.shares.iter().find(|share| share.part == "pivot").map(|share| share.gives);
        let shaft = self.of(Topic::Pivot).next();
        both(|_| {
            let mut parts = vec![mount.map_or_else(|| "Mount unknown".to_owned(), |mount| capital(&mount.spoken()))];
            parts.extend(share.map(|share| format!("the pivot is {:.0} % of what this train gives", 100.0 * share)));
            parts.extend(shaft.map(|bought| format!("one shaft {}", gain(bought))));
            parts.join("; ") + "."
        })
    }

    fn spring(&self) -> Shown {
        let load = self.best(&[Topic::Spring]);
        let mass = self.best(&[Topic::Valve, Topic::Retainer, Topic::Tip]);
        both(|_| {
            let parts = [load.clone(), mass.clone(), self.need()];
            capital(&parts.into_iter().filter(|part| !part.is_empty()).collect::<Vec<_>>().join("; ")) + "."
        })
    }
}

/// A gain with its doubt.
fn gain(bought: &SpeedBought) -> String {
    let [low, high] = bought.gain_band_rpm;
    let doubt = if low < 0.0 && high > 0.0 { ", not sure" } else { "" };
    format!("{:+.0} rpm ({low:+.0} to {high:+.0}{doubt})", bought.gain_rpm).replace('-', "\u{2212}")
}

/// A sentence in both systems of units.
fn both(say: impl Fn(&dyn Fn(&Shown) -> &str) -> String) -> Shown {
    Shown { inch: say(&|shown| &shown.inch), metric: say(&|shown| &shown.metric) }
}

fn capital(text: &str) -> String {
    let mut letters = text.chars();
    letters.next().map_or_else(String::new, |first| first.to_uppercase().chain(letters).collect())
}
