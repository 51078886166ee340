//! What a heading further down a file says otherwise than the first: its lines are read in its units, or asked about.

use super::holds::{Holds, Mapped};
use super::table::{Heading, Table};

/// How the lines from one of a file on are read.
#[derive(Debug, Clone, PartialEq)]
pub struct Section {
    /// The first of them.
    pub from: usize,
    /// What their columns hold.
    pub mapped: Vec<Mapped>,
    /// What is told of it, in words.
    pub said: Option<String>,
    /// Why they are not to be believed, in words.
    pub question: Option<String>,
}

/// The sections of a file, the first from its beginning.
pub fn sections(table: &Table, mapped: &[Mapped]) -> Vec<Section> {
    let mut found = vec![Section { from: 0, mapped: mapped.to_vec(), said: None, question: None }];
    for (from, heading) in &table.further {
        let mut own = under(table, mapped, (*from, heading));
        let before = found.last().map_or(mapped, |last| &last.mapped);
        let changed = own.mapped.iter().zip(before).position(|(own, before)| own.unit != before.unit);
        own.said = changed.map(|column| {
            let (name, unit) = (&table.heading[column].0, &own.mapped[column].unit);
            format!("from line {from} on “{name}” is in {unit}, as the heading there says")
        });
        found.push(own);
    }
    found
}

/// Lines under a further heading: in its units where its names are those of the first.
fn under(table: &Table, mapped: &[Mapped], (from, heading): (usize, &Heading)) -> Section {
    let mut own = Section { from, mapped: mapped.to_vec(), said: None, question: None };
    let columns = own.mapped.iter_mut().zip(table.heading.iter().zip(heading));
    for (mapped, (first, now)) in columns.filter(|(mapped, _)| mapped.holds != Holds::Nothing) {
        if !first.0.eq_ignore_ascii_case(&now.0) {
            own.question = Some(format!(
                "the heading above line {from} names “{}” where the first names “{}”: read it as a file of its own",
                now.0, first.0
            ));
        } else if now.1 != first.1 && !now.1.is_empty() {
            match mapped.holds.unit(&now.1) {
                Some(unit) => mapped.unit = unit.symbol.to_owned(),
                None => {
                    own.question = Some(format!(
                        "the heading above line {from} gives “{}” in “{}”, which is no unit of it",
                        now.0, now.1
                    ));
                }
            }
        }
    }
    own
}
