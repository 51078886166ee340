//! What became of a build, on one page: what its revisions changed, and what its lists of readings, signatures, pulls and service say.

use super::analyze::{PartName, Request, analyze};
use super::dyno::pulls_of;
use super::servicing::service_of;
use crate::build::Build;
use crate::candidate::Stages;
use crate::document::{Difference, Fault, differences};
use crate::quantity::Shown;
use crate::report::{HistoryEvent, HistoryKind, HistoryReport, ServiceEntry};
use crate::words::{ServiceEvent, SessionKind, Word};
use serde_json::Value;

/// A saved revision of a build.
#[derive(Debug, Clone)]
pub struct Revision {
    /// Its number.
    pub number: i64,
    /// When it was saved, with the day first: 2026-06-01.
    pub saved_at: String,
    /// The document as saved.
    pub document: Value,
}

/// Lists that have a line of their own in a history: what they gain is no change of the plan.
const LISTS: &[&str] = &["bench", "assembly", "pull", "pulls", "service"];
/// Most changes that are named of one revision.
const NAMED: usize = 4;

/// What became of a build, by its saved revisions, the earliest first.
///
/// # Errors
/// What keeps the log or a candidate from being read.
pub fn history_of(build: &Build, revisions: &[Revision], stages: &Stages) -> Result<HistoryReport, Fault> {
    let mut events = changes(revisions, build);
    let came = Came { revisions };
    events.extend(sessions(build, &came, stages)?);
    events.extend(signatures(build, &came));
    events.extend(pulls(build, &came)?);
    events.extend(service(build, &came, stages)?);
    // Events of one day stand in the order of the work.
    events.sort_by(|a, b| a.day.cmp(&b.day).then(a.kind.cmp(&b.kind)));
    Ok(HistoryReport { says: says(&events, revisions), events })
}

fn says(events: &[HistoryEvent], revisions: &[Revision]) -> Shown {
    let count = |kind: HistoryKind| events.iter().filter(|own| own.kind == kind).count();
    let of = |kind, one: &str, many: &str| match count(kind) {
        0 => None,
        1 => Some(format!("1 {one}")),
        more => Some(format!("{more} {many}")),
    };
    let revisions = match revisions.len() {
        0 => "Not saved yet".to_owned(),
        1 => "1 revision".to_owned(),
        more => format!("{more} revisions"),
    };
    let parts = [
        Some(revisions),
        of(HistoryKind::Bench, "session at the bench", "sessions at the bench"),
        of(HistoryKind::Dyno, "day on the dyno", "days on the dyno"),
        of(HistoryKind::Service, "entry of the log", "entries of the log"),
    ];
    Shown::plain(format!("{}.", parts.into_iter().flatten().collect::<Vec<_>>().join(", ")))
}

/// With which revision an entry came.
struct Came<'a> {
    revisions: &'a [Revision],
}

impl Came<'_> {
    /// The first that has an entry with this identifier; of one without, the first that has the entry itself.
    fn with(&self, list: &str, entry: &Value) -> Option<i64> {
        let is_it = |own: &Value| match entry["id"].as_str() {
            Some(id) => own["id"].as_str() == Some(id),
            None => own == entry,
        };
        let has = |own: &&Revision| entries(&own.document, list).iter().any(is_it);
        self.revisions.iter().find(has).map(|own| own.number)
    }

    /// The first that has anything at a key.
    fn with_any(&self, key: &str) -> Option<i64> {
        self.revisions.iter().find(|own| own.document.get(key).is_some()).map(|own| own.number)
    }
}

fn entries<'a>(document: &'a Value, list: &str) -> &'a [Value] {
    document.get(list).and_then(Value::as_array).map_or(&[], Vec::as_slice)
}

fn text(entry: &Value, key: &str) -> String {
    entry[key].as_str().unwrap_or_default().to_owned()
}

/// What revisions changed of plan, engine and candidates; the last, what is not saved yet.
fn changes(revisions: &[Revision], build: &Build) -> Vec<HistoryEvent> {
    let mut found = Vec::new();
    if let Some(first) = revisions.first() {
        let names: Vec<String> = entries(&first.document, "candidates").iter().map(|own| text(own, "name")).collect();
        let what = if names.is_empty() { "nothing chosen yet".to_owned() } else { names.join(", ") };
        found.push(change(first, "Begun", what));
    }
    for pair in revisions.windows(2) {
        if let Some(words) = changed(&pair[0].document, &pair[1].document) {
            found.push(change(&pair[1], "Changed", words));
        }
    }
    let unsaved = revisions.last().and_then(|last| changed(&last.document, build.value()));
    found.extend(unsaved.map(|words| HistoryEvent {
        revision: None,
        day: "not saved yet".to_owned(),
        kind: HistoryKind::Plan,
        title: "Changed".to_owned(),
        says: Shown::plain(words),
        by: String::new(),
    }));
    found
}

fn change(revision: &Revision, title: &str, words: String) -> HistoryEvent {
    HistoryEvent {
        day: revision.saved_at.chars().take(10).collect(),
        kind: HistoryKind::Plan,
        title: title.to_owned(),
        says: Shown::plain(words),
        by: String::new(),
        revision: Some(revision.number),
    }
}

/// What differs but for what has a line of its own; `None` where nothing does.
fn changed(before: &Value, after: &Value) -> Option<String> {
    let has_line = |own: &Difference| own.field.split(['.', '[']).next().is_some_and(|key| LISTS.contains(&key));
    let all: Vec<Difference> = differences(before, after).into_iter().filter(|own| !has_line(own)).collect();
    let words = |own: &Difference| match (own.before.as_str(), own.after.as_str()) {
        ("", after) if short(after) => format!("{} {after}", own.label),
        (before, "") if short(before) => format!("{} {before} taken out", own.label),
        (before, after) if short(before) && short(after) => format!("{} {before} to {after}", own.label),
        _ => own.label.clone(),
    };
    let mut parts: Vec<String> = all.iter().take(NAMED).map(words).collect();
    if all.len() > NAMED {
        parts.push(format!("and {} more", all.len() - NAMED));
    }
    (!parts.is_empty()).then(|| parts.join("; "))
}

/// Whether a text is read in passing; tables are not.
fn short(text: &str) -> bool {
    text.len() <= 40 && !text.starts_with(['[', '{'])
}

fn sessions(build: &Build, came: &Came<'_>, stages: &Stages) -> Result<Vec<HistoryEvent>, Fault> {
    let list = entries(build.value(), "bench");
    if list.is_empty() {
        return Ok(Vec::new());
    }
    let found = analyze(build, &Request::of(None, vec![PartName::Sessions]), stages)?;
    let says = |id: &str| {
        let mut all = found.candidates.iter().flat_map(|own| &own.sessions);
        all.find(|own| own.id == id).map_or_else(|| Shown::plain(""), |own| own.says.clone())
    };
    let event = |own: &Value| HistoryEvent {
        day: text(own, "date"),
        kind: HistoryKind::Bench,
        title: SessionKind::from_word(&text(own, "kind")).map_or_else(String::new, Word::spoken),
        says: says(&text(own, "id")),
        by: text(own, "by"),
        revision: came.with("bench", own),
    };
    Ok(list.iter().map(event).collect())
}

/// Signatures of one day and hand are one event.
fn signatures(build: &Build, came: &Came<'_>) -> Vec<HistoryEvent> {
    let mut found: Vec<(HistoryEvent, usize, Vec<String>)> = Vec::new();
    for own in entries(build.value(), "assembly") {
        let (day, by) = (text(own, "at").chars().take(10).collect::<String>(), text(own, "by"));
        let place = found.iter().position(|(event, _, _)| event.day == day && event.by == by);
        let place = place.unwrap_or_else(|| {
            let revision = came.with("assembly", own);
            let title = "Assembly".to_owned();
            let says = Shown::plain("");
            found.push((HistoryEvent { day, kind: HistoryKind::Assembly, title, says, by, revision }, 0, Vec::new()));
            found.len() - 1
        });
        match own["undone"].as_str() {
            Some(why) => found[place].2.push(format!("{} undone: {why}", text(own, "line").replace('_', " "))),
            None => found[place].1 += 1,
        }
    }
    let words = |(event, signed, undone): (HistoryEvent, usize, Vec<String>)| {
        let lines = if signed == 1 { "1 line signed".to_owned() } else { format!("{signed} lines signed") };
        let all: Vec<String> = (signed > 0).then_some(lines).into_iter().chain(undone).collect();
        HistoryEvent { says: Shown::plain(all.join("; ")), ..event }
    };
    found.into_iter().map(words).collect()
}

/// Pulls of one day are one event; what they come to stands with the last.
fn pulls(build: &Build, came: &Came<'_>) -> Result<Vec<HistoryEvent>, Fault> {
    let report = pulls_of(build, None)?;
    let mut days: Vec<&str> = report.pulls.iter().map(|own| own.day.as_str()).collect();
    days.sort_unstable();
    days.dedup();
    let list = entries(build.value(), "pulls");
    let event = |day: &&str| {
        let own = || report.pulls.iter().filter(|own| own.day == **day);
        let mut names: Vec<&str> = Vec::new();
        for name in own().map(|own| own.name.as_str()) {
            if !names.contains(&name) {
                names.push(name);
            }
        }
        let count = |name: &&str| format!("{} of {name}", own().filter(|own| own.name == **name).count());
        let pulled = names.iter().map(count).collect::<Vec<_>>().join(", ");
        let is_last = days.last() == Some(day);
        let first = list.iter().find(|entry| text(entry, "day") == **day);
        HistoryEvent {
            day: (*day).to_owned(),
            kind: HistoryKind::Dyno,
            title: "On the dyno".to_owned(),
            says: if is_last {
                report.says.clone().said(|says| format!("{pulled}. {says}"))
            } else {
                Shown::plain(&pulled)
            },
            by: String::new(),
            revision: first.map_or_else(|| came.with_any("pull"), |entry| came.with("pulls", entry)),
        }
    };
    Ok(days.iter().map(event).collect())
}

fn service(build: &Build, came: &Came<'_>, stages: &Stages) -> Result<Vec<HistoryEvent>, Fault> {
    let report = service_of(build, (None, &[]), stages)?;
    let list = entries(build.value(), "service");
    let event = |own: &ServiceEntry| {
        let entry = list.iter().find(|entry| text(entry, "id") == own.id);
        let at = if own.at.is_empty() { String::new() } else { format!(" at {}", own.at) };
        HistoryEvent {
            day: own.date.clone(),
            kind: HistoryKind::Service,
            title: ServiceEvent::from_word(&own.event).map_or_else(String::new, Word::spoken) + &at,
            says: own.says.clone(),
            by: entry.map_or_else(String::new, |entry| text(entry, "by")),
            revision: entry.and_then(|entry| came.with("service", entry)),
        }
    };
    Ok(report.entries.iter().map(event).collect())
}
