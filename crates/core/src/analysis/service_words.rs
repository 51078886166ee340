//! The service log in words.

use super::pulling_words::joined;
use super::service_build::Servicing;
use super::service_log::{Log, Valve};
use crate::quantity::{Dimension, Shown, UnitSystem, scale, shown, shown_fine};
use crate::report::{DueReport, WearTrend};
use crate::service::{CountedIn, KILOMETRE, Reached, Wear};
use time::Date;
use time::format_description::well_known::Iso8601;

/// Unit of the numbers of a wear, an SI value in it, and the value as read.
pub(super) fn fine(wear: Wear, si: f64) -> (String, f64, Shown) {
    match wear.dimension() {
        Dimension::Force => ("N".to_owned(), si, shown(si, Dimension::Force)),
        _ => ("mm".to_owned(), si * 1e3, shown_fine(si)),
    }
}

/// A valve by its name.
pub(super) fn valve_words((cylinder, side): Valve) -> String {
    format!("cylinder {cylinder} {}", side.key())
}

/// A day as 2026-06-01.
pub(super) fn day_text(day: Date) -> String {
    day.format(&Iso8601::DATE).unwrap_or_default()
}

/// A use as read: miles or kilometres by the display.
pub(super) fn use_shown(amount: f64, of: CountedIn) -> Shown {
    let word = of.unit();
    match of {
        CountedIn::Miles => {
            Shown { inch: format!("{} {word}", grouped(amount)), metric: format!("{} km", grouped(amount / KILOMETRE)) }
        }
        CountedIn::Hours | CountedIn::Passes => Shown::plain(format!("{} {word}", grouped(amount))),
    }
}

/// Thousands parted; what is below ten keeps a digit behind the point.
fn grouped(amount: f64) -> String {
    if amount.abs() < 9.95 && amount.fract().abs() > 0.05 {
        return format!("{amount:.1}");
    }
    let digits = format!("{:.0}", amount.abs());
    let first = digits.len() % 3;
    let mut parts: Vec<&str> = if first > 0 { vec![&digits[..first]] } else { Vec::new() };
    parts.extend((first..digits.len()).step_by(3).map(|at| &digits[at..at + 3]));
    format!("{}{}", if amount < -0.5 { "-" } else { "" }, parts.join(","))
}

/// A rate with its doubt over a round amount of use, both SI.
pub(super) fn rate_words(wear: Wear, (rate, doubt): (f64, f64), of: CountedIn) -> Shown {
    let one = |system: UnitSystem| {
        let unit = scale(wear.dimension(), system);
        let over =
            of.round() / if system == UnitSystem::Metric && of == CountedIn::Miles { KILOMETRE.recip() } else { 1.0 };
        // Kilometres have a thousand of their own.
        let per = if of == CountedIn::Miles { over / of.round() } else { 1.0 };
        let digits = if wear.dimension() == Dimension::Force { 2 } else { unit.decimals + 2 };
        let number = |si: f64| without_zero(&format!("{:.digits$}", si.abs() * per / unit.factor), unit.unit);
        let way = if rate < 0.0 { "less" } else { "more" };
        let round = match of {
            CountedIn::Miles if system == UnitSystem::Metric => "1,000 km".to_owned(),
            _ => format!("{} {}", grouped(of.round()), of.unit()),
        };
        format!("{} ± {} {} {way} in {round}", number(rate), number(doubt), unit.unit)
    };
    Shown { inch: one(UnitSystem::Inch), metric: one(UnitSystem::Metric) }
}

fn without_zero(number: &str, unit: &str) -> String {
    if unit == "in" { number.strip_prefix('0').unwrap_or(number).to_owned() } else { number.to_owned() }
}

/// When a line is there, with what it is not before and not after.
pub(super) fn reached_words(log: &Log, reached: Reached) -> Shown {
    let of = log.counted_in;
    let now = log.now().unwrap_or(0.0);
    let from = || use_shown(reached.from, of);
    if reached.at.is_some_and(|at| at <= now) {
        return Shown::plain("it is there now");
    }
    if reached.from <= now {
        return Shown::plain("it may be there already: the readings do not say; measure again");
    }
    if !reached.from.is_finite() || reached.from >= FAR * now.max(1.0) {
        return Shown::plain("not in sight");
    }
    let day = log.day_of(reached.from).map_or_else(String::new, |day| format!(", {}", day_text(day)));
    match (reached.at, reached.to) {
        (Some(at), Some(to)) => {
            let on = log.day_of(at).map_or_else(String::new, |day| format!(" ({})", day_text(day)));
            joined(&[&use_shown(at, of), &from(), &use_shown(to, of)], |own| {
                format!("about {}{on}, not before {}{day}, not after {}", own[0], own[1], own[2])
            })
        }
        (Some(at), None) => joined(&[&use_shown(at, of), &from()], |own| {
            format!("about {}, not before {}{day}; no later end is known yet", own[0], own[1])
        }),
        (None, _) => from().said(|from| format!("not before {from}{day}; the readings show no wear yet")),
    }
}

/// How many times what it has run is out of sight.
const FAR: f64 = 20.0;

/// The whole log in one sentence.
pub(super) fn says(own: &Servicing<'_>, trends: &[WearTrend], next: &[DueReport]) -> Shown {
    let log = &own.log;
    let Some(now) = log.now() else {
        return Shown::plain("Nothing in the log yet: begin with the day it was put together and what was read then.");
    };
    let run = use_shown(now, log.counted_in).said(|now| format!("{now} run"));
    let soonest = trends
        .iter()
        .filter(|own| own.reached_at.is_some())
        .min_by(|a, b| a.reached_at.unwrap_or(f64::INFINITY).total_cmp(&b.reached_at.unwrap_or(f64::INFINITY)));
    let wear = match soonest {
        Some(first) => first.reached.clone().said(|reached| {
            format!("{} of {} reaches its limit first: {reached}", first.title.to_lowercase(), first.valve)
        }),
        None if trends.is_empty() => Shown::plain("no readings that tell wear yet"),
        None => Shown::plain("no reading goes towards its limit"),
    };
    let mut parts = vec![run, wear];
    let late: Vec<&DueReport> = next.iter().filter(|own| own.overdue).collect();
    match (late.first(), next.first()) {
        (Some(first), _) => {
            // By what it was last seen to have run, or only by what it may have run since.
            let late = if first.at <= now { "overdue" } else { "likely overdue by now" };
            parts.push(Shown::plain(format!("{late}: {}", first.what.to_lowercase())));
        }
        (None, Some(first)) => {
            let on = first.on.as_ref().map_or_else(String::new, |on| format!(", about {on}"));
            parts.push(first.at_shown.clone().said(|at| format!("next: {} at {at}{on}", first.what.to_lowercase())));
        }
        (None, None) => {}
    }
    joined(&parts.iter().collect::<Vec<_>>(), |own| format!("{}.", own.join("; ")))
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn use_is_read_in_thousands_and_kilometres() {
        assert_eq!(use_shown(18_500.0, CountedIn::Miles).inch, "18,500 mi");
        assert_eq!(use_shown(18_500.0, CountedIn::Miles).metric, "29,773 km");
        assert_eq!(use_shown(212.0, CountedIn::Hours).inch, "212 h");
        assert_eq!(use_shown(2.5, CountedIn::Hours).inch, "2.5 h");
        assert_eq!(use_shown(1_234_567.0, CountedIn::Passes).inch, "1,234,567 passes");
    }

    #[test]
    fn a_rate_is_read_over_a_round_amount() {
        let rate = rate_words(Wear::SeatLoad, (-4.448_222, 0.444_822), CountedIn::Miles);
        assert_eq!(rate.inch, "1.00 ± 0.10 lbf less in 1,000 mi");
        // A thousand kilometres are .6214 thousand miles.
        assert_eq!(rate.metric, "2.76 ± 0.28 N less in 1,000 km");
        let play = rate_words(Wear::GuidePlay, (2.54e-5, 2.54e-6), CountedIn::Passes);
        assert_eq!(play.inch, ".00100 ± .00010 in more in 10 passes");
    }
}
