//! What is due as an iCalendar (RFC 5545): a day for each, where the log tells how much the engine runs.

use chrono::{NaiveDate, NaiveTime};
use icalendar::{Calendar, Component, Event, EventLike};
use upper_lobe_core::analysis::{ServiceReport, UnitSystem};

/// A calendar of what is due. The same log gives the same bytes: entries are stamped with the log's last day.
pub fn calendar(report: &ServiceReport, name: &str, system: UnitSystem) -> Calendar {
    let mut calendar = Calendar::new();
    calendar.name(&format!("{name}: service"));
    let stamp = report.entries.iter().rev().find_map(|own| date(&own.date));
    for due in &report.next {
        let Some(day) = due.on.as_deref().and_then(date) else { continue };
        let mut event = Event::new();
        event.uid(&format!("{}@{}", due.id, slug(name)));
        event.summary(&format!("{name}: {}", due.what));
        event.description(&format!(
            "At {}, {}. The maker's own instruction stands above it.",
            due.at_shown.text(system),
            due.why.text(system)
        ));
        event.all_day(day);
        if let Some(stamp) = stamp {
            event.timestamp(stamp.and_time(NaiveTime::MIN).and_utc());
        }
        calendar.push(event.done());
    }
    calendar.done()
}

fn date(text: &str) -> Option<NaiveDate> {
    text.parse().ok()
}

/// A name as it may stand in an identifier.
fn slug(name: &str) -> String {
    let kept = name.chars().map(|c| if c.is_ascii_alphanumeric() { c.to_ascii_lowercase() } else { '-' });
    kept.collect::<String>().trim_matches('-').to_owned()
}
