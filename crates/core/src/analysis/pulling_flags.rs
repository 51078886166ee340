//! What is odd about pulls, and what would make a difference surer, in words.

use super::pulled::Pulled;
use super::pulling::Differs;
use super::pulling_words::{FEWEST, Told, fine, finer, joined, pulls, signed};
use crate::choose::{Better, points_of, ranks};
use crate::pulls::needed::pulls_each;
use crate::pulls::odd::Odd;
use crate::quantity::{Dimension, Shown, shown};
use crate::report::{Believed, DifferenceReport, FlagKind, MeasuredRank, PullFlag};

/// Values that are alike to this, N m and W, tie.
const TIES: [f64; 2] = [0.1, 100.0];

impl Told<'_> {
    /// Combinations ranked as a contest counts them, on the means with day and drift taken out.
    pub(super) fn board(&self) -> Vec<MeasuredRank> {
        let tested = self.tested;
        let Some(differs) = tested.differs.as_ref().filter(|_| tested.combinations.len() > 1) else {
            return Vec::new();
        };
        let columns = [
            (&differs.average_torque, Dimension::Torque, TIES[0]),
            (&differs.average_power, Dimension::Power, TIES[1]),
            (&differs.peak_torque, Dimension::Torque, TIES[0]),
            (&differs.peak_power, Dimension::Power, TIES[1]),
        ];
        let count = tested.combinations.len();
        let ranked: Vec<Vec<usize>> = columns
            .iter()
            .map(|(fitted, _, tie)| {
                let values: Vec<Option<f64>> = fitted.means.iter().map(|own| Some((own / tie).round())).collect();
                ranks(&values, Better::Higher)
            })
            .collect();
        let points = points_of(&ranked, &[1.0; 4], count);
        let places = ranks(&points.iter().copied().map(Some).collect::<Vec<_>>(), Better::Lower);
        let row = |own: usize| MeasuredRank {
            candidate: tested.combinations[own].clone(),
            name: self.name(&tested.combinations[own]),
            values: columns.iter().map(|(fitted, dimension, _)| finer(fitted.means[own], *dimension)).collect(),
            ranks: ranked.iter().map(|column| column[own]).collect(),
            points: points[own],
            place: places[own],
        };
        let mut rows: Vec<MeasuredRank> = (0..count).map(row).collect();
        rows.sort_by_key(|row| row.place);
        rows
    }

    pub(super) fn flags(&self) -> Vec<PullFlag> {
        let tested = self.tested;
        let id = |place: usize| self.all[tested.counted[place]].id.clone();
        let odd = tested.odd.iter().map(|own| match own {
            Odd::Apart { pull, by } => PullFlag {
                pull: id(*pull),
                kind: FlagKind::Apart,
                from_rpm: None,
                why: signed(*by, Dimension::Torque)
                    .said(|by| format!("{by} off what all other pulls say of it: run it again before it is believed")),
            },
            Odd::Slipped { pull, by } => PullFlag {
                pull: id(*pull),
                kind: FlagKind::Slipped,
                from_rpm: None,
                why: signed(*by, Dimension::Torque).said(|by| {
                    format!("from this pull on everything is {by} off: a slipped load cell or belt, a spark or fuel setting; check it with a weight before going on")
                }),
            },
            Odd::Lies { pull, from, by } => {
                let rpm = tested.speeds.get(*from).copied();
                let at = rpm.unwrap_or(0.0);
                PullFlag {
                    pull: id(*pull),
                    kind: FlagKind::Lies,
                    from_rpm: rpm,
                    why: signed(*by, Dimension::Torque).said(|by| {
                        format!("from {at:.0} rpm on {by} off its like pulls in one step: a sensor or a slipping wheel, not an engine")
                    }),
                }
            }
        });
        let kept = tested.kept_out.iter().map(|kept| PullFlag {
            pull: self.all[kept.pull].id.clone(),
            kind: kept.kind,
            from_rpm: None,
            why: Shown::plain(self.why_kept_out(kept)),
        });
        let held = self.all.iter().filter(|own| own.left_out.is_none()).filter_map(|own| self.not_held(own));
        odd.chain(kept).chain(held).collect()
    }

    /// A pull that began outside of what the test holds.
    fn not_held(&self, own: &Pulled) -> Option<PullFlag> {
        let plan = self.plan;
        let parts = [("oil", own.began.oil, plan.windows[0]), ("water", own.began.water, plan.windows[1])];
        let out = parts.into_iter().find_map(|(name, had, (from, to))| {
            let had = had?;
            let is_low = from.is_some_and(|from| had < from - 0.5);
            let is_high = to.is_some_and(|to| had > to + 0.5);
            let word = if is_low { "colder" } else { "hotter" };
            (is_low || is_high).then(|| {
                shown(had, Dimension::Temperature).said(|at| format!("{name} at {at}, {word} than the test holds"))
            })
        });
        let spark = own.began.spark.zip(plan.spark).filter(|(had, held)| (had - held).abs() > 0.3_f64.to_radians());
        let spark = spark.map(|(had, held)| {
            let parts = [shown(had, Dimension::Angle), shown(held, Dimension::Angle)];
            joined(&[&parts[0], &parts[1]], |own| format!("spark at {}, not at the {} the test holds", own[0], own[1]))
        });
        let why = out.or(spark)?;
        Some(PullFlag { pull: own.id.clone(), kind: FlagKind::NotHeld, from_rpm: None, why })
    }

    pub(super) fn surer(&self, differences: &[DifferenceReport]) -> Vec<Shown> {
        let tested = self.tested;
        let mut found = Vec::new();
        if tested.combinations.len() < 2 || tested.figures.is_empty() {
            return found;
        }
        let Some(differs) = &tested.differs else {
            found.push(Shown::plain(
                "Pull every combination at least twice in a row: one pull cannot say how well it repeats.",
            ));
            return found;
        };
        found.extend(self.control_again(differs));
        if differs.average_torque.freedom() < FEWEST {
            found.push(Shown::plain("So few pulls say nothing yet: finish the rows of the plan."));
            return found;
        }
        let spread = differs.average_torque.variance.sqrt();
        let open = differences.iter().filter(|own| own.what == "average_torque" && own.believed == Believed::NotShown);
        for own in open {
            // What is asked for, or what was seen where that is larger.
            let by = self.plan.sure_of.max(own.by.abs());
            let have = self.fewest(&own.a);
            let parts = [fine(by), fine(spread)];
            let name = &own.name;
            let says = match pulls_each(by, spread) {
                Some(each) if each > have => joined(&[&parts[0], &parts[1]], |text| {
                    format!(
                        "{name}: {} more {} each way would find {} in nine of ten tests, as this dyno repeats ({}).",
                        each - have,
                        pulls(each - have),
                        text[0],
                        text[1]
                    )
                }),
                Some(_) if 0.5 * (own.high - own.low) > by => Shown::plain(format!(
                    "{name}: its pulls are enough, their order is not: a drift of the day is hardly told from a difference."
                )),
                Some(_) => joined(&[&parts[0]], |text| {
                    format!("{name}: {} would have been found; what there is, is less than that.", text[0])
                }),
                None => joined(&[&parts[0], &parts[1]], |text| {
                    format!(
                        "{name}: {} is too little for a dyno that repeats to {}: steady the temperatures first.",
                        text[0], text[1]
                    )
                }),
            };
            found.push(says);
        }
        found
    }

    /// Pulls of the one of both that has fewer.
    fn fewest(&self, a: &str) -> usize {
        let place = self.tested.combinations.iter().position(|own| own == a).unwrap_or(0);
        let count = |place: usize| self.tested.design.combination.iter().filter(|own| **own == place).count();
        count(0).min(count(place))
    }

    /// The control has to come again after the others, or drift and difference are one.
    fn control_again(&self, differs: &Differs) -> Option<Shown> {
        let design = &self.tested.design;
        let days = design.day.iter().max().map_or(0, |last| last + 1);
        let is_closed = |day: usize| {
            let of = |is_control: bool| {
                let own = (0..design.day.len())
                    .filter(move |pull| design.day[*pull] == day && (design.combination[*pull] == 0) == is_control);
                own.map(|pull| design.at[pull]).fold(f64::NEG_INFINITY, f64::max)
            };
            of(true) > of(false)
        };
        let open = (0..days).any(|day| !is_closed(day));
        let word = if differs.has_drift {
            "takes most of the doubt away"
        } else {
            "tells a drift of the day from a difference"
        };
        let control = self.name(&self.tested.combinations[0]);
        open.then(|| Shown::plain(format!("Run {control} again at the end of the day: it {word}.")))
    }
}
