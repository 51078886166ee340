//! What is due next, by use and by stress: intervals counted from when each was last done, cut short where a trend comes sooner.

use super::service_build::Servicing;
use super::service_words::{day_text, use_shown};
use crate::choose::interval;
use crate::quantity::Shown;
use crate::report::{DueReport, WearTrend};
use crate::service::Due;
use crate::words::ServiceEvent;

/// What is due, the first first; nothing while the log is empty.
pub(super) fn due(own: &Servicing<'_>, trends: &[WearTrend]) -> Vec<DueReport> {
    if own.log.now().is_none() {
        return Vec::new();
    }
    let mut all: Vec<DueReport> =
        Due::ALL.iter().filter(|due| applies(own, **due)).map(|due| of(own, *due, trends)).collect();
    all.extend(planned(own));
    all.sort_by(|a, b| a.at.total_cmp(&b.at));
    all
}

/// Lash is of solid lifters; where nobody says which there are, it is asked all the same once it was read.
fn applies(own: &Servicing<'_>, due: Due) -> bool {
    due != Due::Lash || own.lifter().map_or_else(|| last(own, Due::Lash).1, |kind| kind.is_solid())
}

/// When it was last done, and whether that was looked at since it went together.
fn last(own: &Servicing<'_>, due: Due) -> (f64, bool) {
    let mut found = (0.0, false);
    for (entry, at) in own.log.counted() {
        let is_read =
            entry.event != ServiceEvent::Assembled && due.wear().is_some_and(|wear| !entry.read_of(wear).is_empty());
        let is_done = is_read || (due == Due::Oil && entry.event == ServiceEvent::Oil);
        let is_renewed = due.wear().is_some_and(|wear| wear.is_renewed(entry.event, &entry.changed));
        if entry.event == ServiceEvent::Assembled || is_renewed {
            found = (at, false);
        }
        if is_done && !is_renewed {
            found = (at, true);
        }
    }
    found
}

fn of(own: &Servicing<'_>, due: Due, trends: &[WearTrend]) -> DueReport {
    let counted_in = own.log.counted_in;
    let (since, is_seen) = last(own, due);
    let first = due.first(counted_in).filter(|_| !is_seen);
    let (every, mut why) = match (first, by_stress(own, due)) {
        (Some(first), _) => {
            (first, use_shown(first, counted_in).said(|every| format!("the first time after {every}: it settles")))
        }
        (None, Some((every, why))) => (every, why),
        (None, None) => {
            let every = due.interval(counted_in, own.is_raced(), own.is_flat());
            (every, use_shown(every, counted_in).said(|every| format!("every {every} (common practice, no source)")))
        }
    };
    let mut at = since + every;
    let trend = trends.iter().find(|trend| due.wear().is_some_and(|wear| wear.key() == trend.what));
    if let Some(trend) = trend.filter(|trend| trend.not_before < at) {
        // It was looked at since: what was read then says that it may be there, and it is due at once.
        at = trend.not_before.max(since);
        let valve = &trend.valve;
        why = Shown::plain(format!("sooner than by interval: from there on {valve} may be at its limit"));
    }
    made(own, due_id(due), due.title(), (at, why))
}

/// The springs' own interval, where it is counted in what the log is counted in.
fn by_stress(own: &Servicing<'_>, due: Due) -> Option<(f64, Shown)> {
    let resolved = own.resolved.as_ref().filter(|_| due == Due::Springs)?;
    let found = interval(resolved).filter(|found| found.counted_in == own.log.counted_in)?;
    let every = use_shown(found.count, found.counted_in);
    let side = found.side.key();
    Some((
        found.count,
        every.said(|every| match found.stress {
            Some(share) => format!(
                "every {every}, by lift, load and wire stress: the {side} springs' wire bears {:.0} % of its strength",
                100.0 * share
            ),
            None => format!("every {every}, by lift and load of the {side} springs; their wire is not known"),
        }),
    ))
}

/// The inspection the owner accepts by the plan.
fn planned(own: &Servicing<'_>) -> Option<DueReport> {
    use crate::service::CountedIn::{Hours, Miles, Passes};
    let target = &own.resolved.as_ref()?.given.target;
    let every = match own.log.counted_in {
        Miles => target.inspection_miles,
        Hours => target.inspection_hours,
        Passes => target.inspection_passes,
    };
    let every = every.filter(|every| *every > 0.0)?;
    let looked = own.log.counted().filter(|(entry, _)| entry.event == ServiceEvent::Inspection).map(|entry| entry.1);
    let at = looked.last().unwrap_or(0.0) + every;
    let why = use_shown(every, own.log.counted_in).said(|every| format!("every {every}, as the plan has it"));
    Some(made(own, "inspection", "Inspection as planned", (at, why)))
}

fn made(own: &Servicing<'_>, id: &str, what: &str, (at, why): (f64, Shown)) -> DueReport {
    DueReport {
        id: id.to_owned(),
        what: what.to_owned(),
        at,
        at_shown: use_shown(at, own.log.counted_in),
        on: own.log.day_of(at).map(day_text),
        why,
        overdue: at <= own.now(),
    }
}

const fn due_id(due: Due) -> &'static str {
    match due {
        Due::Oil => "oil",
        Due::Lash => "lash",
        Due::Springs => "springs",
        Due::Lobes => "lobes",
        Due::Guides => "guides",
    }
}
