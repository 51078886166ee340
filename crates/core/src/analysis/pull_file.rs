//! A file of a dyno as it would be taken over: its columns, its runs, what is asked of each.

use crate::document::Fault;
use crate::pulls::file::{Mapped, Run, Table, guessed, read, runs, signature};
use crate::pulls::trim::{counted, trim};
use crate::quantity::{Dimension, shown};
use crate::report::{PointIs, PullColumn, PullFileReport, PullRun};

/// Cells of a column that are shown.
const SHOWN: usize = 3;

/// Reads a file with what its columns hold, or with what their headings say where that is not given.
///
/// # Errors
/// The file is no table.
pub fn pull_file(text: &str, mapped: Option<&[Mapped]>) -> Result<PullFileReport, Fault> {
    let table = read(text).map_err(|why| Fault::new("file", "this file", why))?;
    let fits = mapped.filter(|mapped| mapped.len() == table.heading.len());
    let mapped = fits.map_or_else(|| guessed(&table), <[Mapped]>::to_vec);
    let (found, said, lacks) = match runs(&table, &mapped) {
        Ok((found, said)) => (found, said, None),
        Err(why) => (Vec::new(), Vec::new(), Some(why)),
    };
    let lacks = lacks.or_else(|| found.is_empty().then(|| "no run in it is long enough for a pull".to_owned()));
    Ok(PullFileReport {
        signature: signature(&table),
        columns: mapped.iter().enumerate().map(|(place, own)| column(&table, place, own)).collect(),
        runs: found.iter().map(run).collect(),
        said,
        lacks,
        before: table.before,
    })
}

fn column(table: &Table, place: usize, own: &Mapped) -> PullColumn {
    let (name, written) = table.heading[place].clone();
    let cells = table.lines.iter().take(SHOWN).filter_map(|line| line.cells.get(place)).cloned().collect();
    PullColumn { name, written, holds: own.holds, unit: own.unit.clone(), units: own.holds.units(), cells }
}

fn run(own: &Run) -> PullRun {
    let range =
        own.points.iter().fold([f64::INFINITY, 0.0], |range, point| [range[0].min(point.0), range[1].max(point.0)]);
    let left = trim(&own.points, (None, None));
    // A spike is no peak. Of a run that nothing counts of, all is looked at.
    let counted = counted(&own.points, &left);
    let looked_at = if counted.is_empty() { &own.points } else { &counted };
    let highest = looked_at.iter().map(|point| point.1).fold(f64::NEG_INFINITY, f64::max);
    PullRun {
        line: own.line,
        count: own.points.len(),
        range_rpm: range,
        peak_torque: shown(highest, Dimension::Torque),
        speed_rpm: own.points.iter().map(|point| point.0).collect(),
        torque_nm: own.points.iter().map(|point| point.1).collect(),
        points: left.into_iter().map(PointIs::from).collect(),
        questions: own.questions.clone(),
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn the_peak_of_a_run_is_of_what_counts() {
        let lines = |i: u32| format!("{},{}\n", 2000 + 50 * i, if i == 20 { 700 } else { 340 + i % 3 });
        let text: String = std::iter::once("rpm,torque (lbf ft)\n".to_owned()).chain((0..60).map(lines)).collect();
        let run = &pull_file(&text, None).unwrap().runs[0];
        assert_eq!(run.peak_torque.inch, "342 lbf ft");
        assert_eq!(run.count, 60, "it is left out in sight");
    }
}
