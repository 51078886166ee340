//! The shop twin as a report: what the shop's own pulls say of the model's constants, how well the others foretold each build, and what
//! the next build of a family may take.

use super::calibration::{LABELS, fitted_fields, rounded};
use super::taught::{Taught, family_of, taught_by};
use crate::build::Build;
use crate::candidate::breathing::calibration::{PULL_ERROR, constants_at, root_mean_square, spreads_of, widths};
use crate::candidate::breathing::constants::{Calibrated, Constants};
use crate::quantity::{Dimension, Shown, shown};
use crate::report::{ShopBuild, ShopConstant, ShopGain, ShopLevel, ShopNext, ShopReport, ShrunkConstant};
use crate::shop_twin::{Drawn, Learned, OfFamily, ShopTwin, families_left_out, left_out, twin};
use crate::words::CalibratedBy;

/// Fewest builds, of a family or of all, that a default is made of.
const ENOUGH: usize = 3;
/// Half of an interval that holds 95 of 100, in standard deviations.
const HALF: f64 = 1.96;
const MODEL: &str = "Each build has constants of its own, drawn from its family's, those from the shop's; what a fit left behind is kept in its document. A build that differs much is drawn to its family as far as its own pulls leave it open (a normal hierarchy; spreads within and between families as the modes of their posteriors). What the others foretold of each is told with that build left out, to first order in the constants.";

/// All builds that were on the dyno, with their families in order.
struct Shop<'a> {
    taught: Vec<&'a Taught>,
    families: Vec<&'a str>,
    builds: Vec<OfFamily>,
    twin: ShopTwin,
}

impl<'a> Shop<'a> {
    fn new(taught: &'a [Taught]) -> Self {
        let mut named: Vec<&Taught> = taught.iter().collect();
        named.sort_by(|a, b| (&a.family, &a.name).cmp(&(&b.family, &b.name)));
        // A copy of a build brings its fit along: it teaches once.
        let mut taught: Vec<&Taught> = Vec::new();
        for own in named {
            if !taught.iter().any(|one| one.learned == own.learned) {
                taught.push(own);
            }
        }
        let mut families: Vec<&str> = taught.iter().map(|own| own.family.as_str()).collect();
        families.dedup();
        let number = |family: &str| families.partition_point(|own| *own < family);
        let builds: Vec<OfFamily> = taught.iter().map(|own| (number(&own.family), own.learned.clone())).collect();
        let twin = twin(&builds, families.len());
        Self { taught, families, builds, twin }
    }

    fn family(&self, name: &str) -> Option<usize> {
        self.families.iter().position(|own| *own == name)
    }

    /// How many builds of a family were on the dyno.
    fn count(&self, family: usize) -> usize {
        self.builds.iter().filter(|(own, _)| *own == family).count()
    }

    /// What each build's errors would have been by what was foretold of it.
    fn errors(&self, foretold: &[Drawn]) -> Vec<f64> {
        self.builds.iter().zip(foretold).map(|((_, own), drawn)| error(own, drawn)).collect()
    }

    /// What the next build of a family may take, where enough of it or of others were on the dyno; none of one kind alone tell of another.
    fn next(&self, family: &str) -> Option<Calibrated> {
        let number = self.family(family);
        let own = number.filter(|own| self.count(*own) >= ENOUGH);
        let (errors, of): (Vec<f64>, Vec<usize>) = match own {
            Some(own) => {
                let of: Vec<usize> = (0..self.builds.len()).filter(|place| self.builds[*place].0 == own).collect();
                let all = self.errors(&left_out(&self.builds, self.families.len()));
                (of.iter().map(|place| all[*place]).collect(), of)
            }
            None if self.builds.len() >= ENOUGH && self.families.len() > 1 => {
                let all = self.errors(&families_left_out(&self.builds, self.families.len()));
                (all, (0..self.builds.len()).collect())
            }
            None => return None,
        };
        let middle = |speed: &dyn Fn(&Taught) -> f64| {
            let mut speeds: Vec<f64> = of.iter().map(|place| speed(self.taught[*place])).collect();
            speeds.sort_by(f64::total_cmp);
            speeds[speeds.len() / 2]
        };
        let named = if own.is_some() {
            format!("{} \u{201c}{family}\u{201d}", of.len())
        } else {
            format!("{} other", of.len())
        };
        Some(Calibrated {
            constants: constants(&self.twin.next(number.unwrap_or(self.families.len()))),
            remaining: root_mean_square(&errors),
            speeds: (middle(&|own| own.speeds.0), middle(&|own| own.speeds.1)),
            pulled: format!("the shop's {named} builds"),
            by: CalibratedBy::Shop,
        })
    }

    fn foretold(&self, family: &str) -> Option<ShopNext> {
        let next = self.next(family)?;
        let says = format!(
            "Constants of {}: each was {} off when the others foretold it, so this one is expected within about {} between {:.0} and {:.0} rpm.",
            next.pulled,
            percent(next.remaining),
            percent(2.0 * next.remaining),
            next.speeds.0,
            next.speeds.1
        );
        Some(ShopNext { says, error: next.remaining, fields: fitted_fields(&next) })
    }

    fn level(&self, title: &str, own: bool, (builds, next): (usize, &Drawn)) -> ShopLevel {
        let spreads = next.covariance.diagonal().map(|own| HALF * own.max(0.0).sqrt());
        let (at, width): ([f64; 4], [f64; 4]) = (constants(next).into(), widths(&spreads.into()));
        let constant = |k: usize| ShopConstant {
            label: LABELS[k].to_owned(),
            at: at[k],
            width: width[k],
            value: constant_shown(k, at[k]),
            doubt: constant_shown(k, width[k]),
        };
        ShopLevel { title: title.to_owned(), builds, own, constants: (0..LABELS.len()).map(constant).collect() }
    }

    fn build(&self, place: usize, others: Option<f64>) -> ShopBuild {
        let (own, learned) = (self.taught[place], &self.builds[place].1);
        let drawn = &self.twin.builds[place];
        let (alone, together): ([f64; 4], [f64; 4]) = (constants(&learned.alone()).into(), constants(drawn).into());
        let constant = |k: usize| ShrunkConstant {
            label: LABELS[k].to_owned(),
            at: [alone[k], together[k]],
            alone: constant_shown(k, alone[k]),
            drawn: constant_shown(k, together[k]),
        };
        ShopBuild {
            name: own.name.clone(),
            family: own.family.clone(),
            points: learned.points as usize,
            usual_error: usual_error(learned),
            others_error: others,
            own_error: error(learned, drawn),
            constants: (0..LABELS.len()).map(constant).collect(),
        }
    }
}

/// What the shop's pulls say, to `build`; `taught` by every build that was on the dyno, `build` among them where it was.
pub fn shop_of(build: &Build, taught: &[Taught]) -> ShopReport {
    let shop = Shop::new(taught);
    let family = family_of(build);
    let count = shop.builds.len();
    let others = (count >= ENOUGH).then(|| shop.errors(&left_out(&shop.builds, shop.families.len())));
    let of = |place: usize| others.as_ref().map(|own| own[place]);
    let builds: Vec<ShopBuild> = (0..count).map(|place| shop.build(place, of(place))).collect();
    let each = |what: &dyn Fn(&ShopBuild) -> f64| root_mean_square(&builds.iter().map(what).collect::<Vec<f64>>());
    let gain = others.as_ref().map(|others| ShopGain {
        usual: each(&|own| own.usual_error),
        others: root_mean_square(others),
        own: each(&|own| own.own_error),
    });
    let mut levels = vec![shop.level("The whole shop", false, (count, &shop.twin.next(shop.families.len())))];
    levels.extend(
        shop.families
            .iter()
            .enumerate()
            .map(|(number, title)| shop.level(title, *title == family, (shop.count(number), &shop.twin.next(number)))),
    );
    let next = next(&shop, build, &family);
    ShopReport { says: says(&shop, gain.as_ref()), model: MODEL.to_owned(), levels, builds, gain, next }
}

/// What the shop's builds foretell of one that was never on the dyno; nothing where too few of them were.
pub fn foretold(build: &Build, taught: &[Taught]) -> Option<ShopNext> {
    Shop::new(taught).foretold(&family_of(build))
}

/// A build that was on the dyno keeps its own, drawn to its family; another takes what is foretold of it.
fn next(shop: &Shop<'_>, build: &Build, family: &str) -> Option<ShopNext> {
    let Some(own) = taught_by(build) else {
        return shop.foretold(family);
    };
    let place =
        shop.taught.iter().position(|one| one.learned == own.learned).filter(|_| shop.builds.len() >= ENOUGH)?;
    let drawn = &shop.twin.builds[place];
    let (alone, left) = (error(&own.learned, &own.learned.alone()), error(&own.learned, drawn));
    let says = format!(
        "Its own pulls, drawn to its family, leave torque {} off where it was pulled, its own alone {}; what noise did to its pulls weighs less in them.",
        percent(left),
        percent(alone)
    );
    let kept = Calibrated {
        constants: constants(drawn),
        remaining: left,
        speeds: own.speeds,
        pulled: "its own pulls, drawn to the shop's".to_owned(),
        by: CalibratedBy::Pull,
    };
    Some(ShopNext { says, error: left, fields: fitted_fields(&kept) })
}

fn says(shop: &Shop<'_>, gain: Option<&ShopGain>) -> String {
    let builds = match shop.builds.len() {
        0 => {
            return "No build of the shop was fitted to pulls of its own yet: fit one, and the next begins from it."
                .to_owned();
        }
        1 => "One build".to_owned(),
        n => format!("{n} builds"),
    };
    let Some(gain) = gain else {
        return format!("{builds} of the shop fitted to pulls of their own: from {ENOUGH} on they foretell the next.");
    };
    let kinds =
        if shop.families.len() == 1 { "one family".to_owned() } else { format!("{} families", shop.families.len()) };
    let worth = if gain.others < gain.usual { "" } else { " They foretell no better than the usual constants yet." };
    format!(
        "{builds} of {kinds}: torque is off by {} with the usual constants, by {} with what the others foretold of each, by {} with its own.{worth}",
        percent(gain.usual),
        percent(gain.others),
        percent(gain.own)
    )
}

fn percent(share: f64) -> String {
    format!("{:.1} %", 100.0 * share)
}

fn constants(drawn: &Drawn) -> Constants {
    rounded(&constants_at(&drawn.mean.into()))
}

fn usual_error(own: &Learned) -> f64 {
    own.error(&[0.0; 4].into()) * PULL_ERROR
}

/// What the constants that a document would keep leave.
fn error(own: &Learned, drawn: &Drawn) -> f64 {
    own.error(&spreads_of(&constants(drawn)).into()) * PULL_ERROR
}

/// A constant by its place, or a width of it, as read.
fn constant_shown(place: usize, value: f64) -> Shown {
    if place == 3 { shown(value, Dimension::Length) } else { Shown::plain(format!("{value:.3}")) }
}
