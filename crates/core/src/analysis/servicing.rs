//! What the service log of a build comes to: what wears, when it reaches what it must not, what is due, what broke.

use super::pulling_words::joined;
use super::service_build::Servicing;
use super::service_due::due;
use super::service_failed::failures;
use super::service_log::{Log, Mended};
use super::service_wear::WearOf;
use super::service_words::{fine, says, use_shown, valve_words};
use crate::build::Build;
use crate::candidate::Stages;
use crate::document::Fault;
use crate::quantity::Shown;
use crate::report::{ServiceEntry, ServiceReport, WearTrend};
use crate::service::Wear;
use crate::words::Word;

const CAUTIONS: &[&str] = &[
    "Compressed springs and retainers store enough energy to injure: a proper compressor, eye protection, the cylinder held by air or cord.",
    "Engine cold, ignition off, turned by hand only; hot parts, fuel and rotating belts keep hands away from a running engine.",
    "A forecast is a planning aid: the maker's own interval and what a machinist measures stand above it.",
];

const MODEL: &str = "Each valve has a level and a rate of its own by least squares; rates are drawn to their mean as far as readings do not tell them apart (Paule and Mandel); when a limit is reached is told with Fieller's interval, 95 of 100. Readings between two renewals make one line; one that wear cannot bring about begins a line of its own.";

/// What the log of a build comes to. `today`: a day as 2026-06-01; `like`: wear of other builds.
///
/// # Errors
/// A day that is none, or a candidate in the log that is not there.
pub fn service_of(
    build: &Build,
    (today, like): (Option<&str>, &[WearOf]),
    stages: &Stages,
) -> Result<ServiceReport, Fault> {
    let own = Servicing::new(build, today, stages)?;
    let trends: Vec<WearTrend> = Wear::ALL.iter().filter_map(|wear| own.trend(*wear, like)).collect();
    let next = due(&own, &trends);
    let log = &own.log;
    let mended = Wear::ALL.map(|wear| (wear, log.mended(wear)));
    Ok(ServiceReport {
        says: says(&own, &trends, &next),
        model: MODEL.to_owned(),
        in_engine: log.in_engine().map(str::to_owned),
        unit: log.counted_in.unit().to_owned(),
        cylinders: own.cylinders(),
        now: log.now(),
        now_shown: log.now().map(|now| use_shown(now, log.counted_in)),
        by_today: own.by_today().map(|now| use_shown(now, log.counted_in)),
        per_day: log.per_day(),
        entries: (0..log.entries.len()).map(|place| entry(log, &mended, place)).collect(),
        trends,
        next,
        failures: failures(&own),
        cautions: CAUTIONS.iter().map(|own| (*own).to_owned()).collect(),
    })
}

/// Wear of a build for engines like it to be told by; nothing of one without readings.
pub fn wear_of(build: &Build, stages: &Stages) -> Vec<WearOf> {
    let Ok(own) = Servicing::new(build, None, stages) else { return Vec::new() };
    Wear::ALL.iter().filter_map(|wear| own.wear(*wear)).collect()
}

/// An entry, with what `mended` has of it.
fn entry(log: &Log, mended: &[(Wear, Vec<Mended>)], place: usize) -> ServiceEntry {
    let own = &log.entries[place];
    let mut parts: Vec<Shown> = Vec::new();
    if !own.changed.is_empty() {
        let changed: Vec<String> = own.changed.iter().map(|own| own.spoken()).collect();
        parts.push(Shown::plain(format!("new {}", changed.join(", "))));
    }
    for wear in Wear::ALL {
        let read = own.read_of(wear);
        let values = || read.iter().map(|own| own.1);
        let (least, most) = (values().fold(f64::INFINITY, f64::min), values().fold(f64::NEG_INFINITY, f64::max));
        if !read.is_empty() {
            let (least, most) = (fine(wear, least).2, fine(wear, most).2);
            let title = wear.title().to_lowercase();
            let words = |least: &str, most: &str| match least == most {
                true => format!("{title} {least}"),
                false => format!("{title} {} to {most}", least.split(' ').next().unwrap_or(least)),
            };
            parts.push(Shown { inch: words(&least.inch, &most.inch), metric: words(&least.metric, &most.metric) });
        }
    }
    parts.extend([&own.finding, &own.why, &own.note].into_iter().filter(|own| !own.is_empty()).map(Shown::plain));
    ServiceEntry {
        id: own.id.clone(),
        field: own.field.clone(),
        date: own.date.clone(),
        at: own.at.clone(),
        event: own.event.word().to_owned(),
        says: joined(&parts.iter().collect::<Vec<_>>(), |own| own.join("; ")),
        problem: own.problem.clone(),
        asks: mended.iter().filter_map(|(wear, all)| asks(log, (*wear, all), place)).collect(),
    }
}

/// What is asked where valves read better than wear can make them: of the one that does so the most.
fn asks(log: &Log, (wear, mended): (Wear, &[Mended]), place: usize) -> Option<Shown> {
    let (way, why) = wear.cannot()?;
    let own: Vec<&Mended> = mended.iter().filter(|own| own.entries.0 == place).collect();
    let most = own.iter().max_by(|a, b| a.by.total_cmp(&b.by))?;
    let others = match own.len() - 1 {
        0 => String::new(),
        1 => ", one more valve likewise".to_owned(),
        count => format!(", {count} more valves likewise"),
    };
    let (title, valve, word) = (wear.title(), valve_words(most.valve), if way > 0.0 { "more" } else { "less" });
    let date = &log.entries[most.entries.1].date;
    Some(fine(wear, most.by).2.said(|by| {
        format!(
            "{title} of {valve} reads {by} {word} than on {date}{others}: {why}. New parts or shims that are not written down, another tool, a slip? Until somebody says, it counts as new from there."
        )
    }))
}
