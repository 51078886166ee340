//! What a share of a search computed, as a file: points by their keys, of one program.

use crate::points::program;
use anyhow::{Context, bail};
use serde::{Deserialize, Serialize};
use std::collections::HashSet;
use std::path::Path;
use std::sync::Arc;
use upper_lobe_core::analysis::{Columns, Key, Stages};

/// The file.
#[derive(Serialize, Deserialize)]
#[serde(deny_unknown_fields)]
struct Part {
    /// The program that computed them, by its digest.
    program: String,
    points: Vec<Point>,
}

/// One point.
#[derive(Serialize, Deserialize)]
#[serde(deny_unknown_fields)]
struct Point {
    /// What it was computed from, in hexadecimal.
    key: String,
    /// Speeds, rpm; empty for plain figures.
    speed_rpm: Vec<f64>,
    /// Columns, one after another, none where a figure is not known; absent for a cam that has no curve.
    columns: Option<Vec<Option<f64>>>,
}

/// Takes over a part.
///
/// # Errors
/// A file that is none, or of another program.
pub fn take(path: &Path, stages: &Stages) -> anyhow::Result<()> {
    let text = std::fs::read(path).with_context(|| format!("reading {}", path.display()))?;
    let part: Part = serde_json::from_slice(&text).with_context(|| format!("{} is no part", path.display()))?;
    if part.program != program() {
        bail!("{} was computed by another program: run every share with the same one", path.display());
    }
    for point in part.points {
        let key = Key::from_str_radix(&point.key, 16).with_context(|| format!("{}: a key", path.display()))?;
        let known = |values: Vec<Option<f64>>| values.into_iter().map(|value| value.unwrap_or(f64::NAN)).collect();
        let columns = point.columns.map(|values| Columns { speeds: point.speed_rpm, values: known(values) });
        stages.points.keep(key, Arc::new(columns));
    }
    Ok(())
}

/// Writes every point that is not among `known`.
///
/// # Errors
/// The disk.
pub fn write(path: &Path, stages: &Stages, known: &HashSet<Key>) -> anyhow::Result<()> {
    let mut own = stages.points.all();
    own.retain(|(key, _)| !known.contains(key));
    own.sort_by_key(|(key, _)| *key);
    let point = |(key, columns): &(Key, Arc<Option<Columns>>)| {
        let known = |values: &[f64]| values.iter().map(|value| (!value.is_nan()).then_some(*value)).collect();
        let own = columns.as_ref().as_ref();
        Point {
            key: format!("{key:032x}"),
            speed_rpm: own.map_or_else(Vec::new, |own| own.speeds.clone()),
            columns: own.map(|own| known(&own.values)),
        }
    };
    let part = Part { program: program().to_owned(), points: own.iter().map(point).collect() };
    let text = serde_json::to_vec(&part)?;
    std::fs::write(path, text).with_context(|| format!("writing {}", path.display()))
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn what_one_share_computed_is_what_another_takes_over_but_for_what_it_had() {
        let (one, other) = (Stages::default(), Stages::default());
        let curve = Columns { speeds: vec![2000.0, 3000.0], values: vec![401.25, 1.0 / 3.0] };
        one.points.keep(1, Arc::new(Some(curve.clone())));
        one.points.keep(2, Arc::new(None));
        // A pushrod that is not known.
        one.figures(3, || Some(vec![700.5, f64::NAN]));
        one.points.keep(4, Arc::new(None));
        let directory = tempfile::tempdir().unwrap();
        let path = directory.path().join("part");
        write(&path, &one, &HashSet::from([4])).unwrap();
        take(&path, &other).unwrap();
        assert_eq!(other.points.kept(1).as_deref(), Some(&Some(curve)));
        assert_eq!(other.points.kept(2).as_deref(), Some(&None));
        let figures = other.figures(3, || unreachable!("it was taken over")).unwrap();
        assert!(figures[0] == 700.5 && figures[1].is_nan());
        assert!(other.points.kept(4).is_none());
        let text = std::fs::read_to_string(&path).unwrap().replace(program(), "another");
        std::fs::write(&path, text).unwrap();
        assert!(take(&path, &other).unwrap_err().to_string().contains("another program"));
    }
}
