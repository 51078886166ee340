//! A measured lobe from the text of a file: any separator, unit and zero, cam or crank degrees, one flank or both.

use crate::document::{Fault, cells};
use crate::quantity::{Dimension, UnitSystem, parse};
use serde_json::{Value, json};

/// Most lines a file may have, and most points that are kept of it: half a degree of a whole turn.
const MOST_LINES: usize = 200_000;
const MOST_POINTS: usize = 720;
/// Widest gap between neighbouring angles, cam degrees.
const WIDEST_GAP: f64 = 12.0;
/// Readings of one angle may differ by this much, m.
const SAME: f64 = 0.003 * INCH;
/// A dial may stand this far off zero on the base circle, m.
const MOST_OFFSET: f64 = 0.020 * INCH;
/// Lift that counts as off the base circle, m, and how much of the base circle is kept on each side, cam degrees.
const RISEN: f64 = 0.0007 * INCH;
const KEPT: f64 = 8.0;
/// Lifts a lobe may have, m.
const LIFTS: (f64, f64) = (0.100 * INCH, 0.700 * INCH);
const INCH: f64 = 0.0254;

/// Puts the lobe of `text` in the place of what `side` of the candidate at `index` has.
pub fn import(document: &mut Value, index: usize, side: &str, text: &str, system: UnitSystem) -> Result<(), Fault> {
    let path = format!("candidates[{index}].cam.{side}.profile");
    let points = whole_lobe(read(text, &path, system)?, &path)?;
    let cam_deg: Vec<f64> = points.iter().map(|point| round(point.0, 1e3)).collect();
    let lift: Vec<String> = points.iter().map(|point| format!("{} mm", round(point.1 * 1e3, 1e4))).collect();
    let unknown = || Fault::new(path.clone(), side, "a lobe of a candidate");
    let candidate = document.get_mut("candidates").and_then(|list| list.get_mut(index)).ok_or_else(unknown)?;
    let cam = candidate.as_object_mut().ok_or_else(unknown)?.entry("cam").or_insert_with(|| json!({}));
    let source = json!({ "profile": "measured" });
    let lobe = json!({ "profile": { "cam_deg": cam_deg, "lift": lift }, "sources": source });
    cam.as_object_mut().ok_or_else(unknown)?.insert(side.to_owned(), lobe);
    Ok(())
}

fn round(value: f64, digits: f64) -> f64 {
    (value * digits).round() / digits
}

/// Cam degrees and lifts in m as they stand in the file, in rising order.
fn read(text: &str, path: &str, system: UnitSystem) -> Result<Vec<(f64, f64)>, Fault> {
    let bad = |given: &str, needs: &str| Fault::new(path, given, needs.to_owned());
    if text.lines().count() > MOST_LINES {
        return Err(bad("a very long file", "at most 200,000 lines"));
    }
    let crank = text.lines().next().is_some_and(|heading| heading.to_lowercase().contains("crank"));
    let unit = if system == UnitSystem::Inch { "in" } else { "mm" };
    let mut points = Vec::new();
    for (line, row) in cells(text).iter().enumerate() {
        let [angle, lift, ..] = row.as_slice() else {
            return Err(bad(&row.join(" "), "two columns, angle and lift").cure(format!("look at line {}", line + 1)));
        };
        let angle = angle.trim_end_matches("deg").trim_end_matches('°').trim();
        let bare = lift.parse::<f64>().is_ok();
        let lift = if bare { format!("{lift} {unit}") } else { lift.clone() };
        let (Ok(angle), Ok(lift)) = (angle.parse::<f64>(), parse(&lift, Dimension::Length)) else {
            let cure = format!("look at line {} of the figures", line + 1);
            return Err(bad(&row.join(" "), "an angle and a lift").cure(cure));
        };
        if !angle.is_finite() || !lift.is_finite() {
            return Err(bad(&row.join(" "), "finite numbers"));
        }
        points.push((if crank { 0.5 * angle } else { angle }, lift));
    }
    in_order(points, path)
}

/// Rising angles, one lift for each: descending files are turned round, a passage through 360 is followed.
fn in_order(mut points: Vec<(f64, f64)>, path: &str) -> Result<Vec<(f64, f64)>, Fault> {
    if points.len() < 12 {
        return Err(Fault::new(path, &format!("{} points", points.len()), "at least 12 points of lift over the cam"));
    }
    let falling = points.windows(2).filter(|two| two[1].0 < two[0].0).count();
    if falling > points.len() / 2 {
        points.reverse();
    }
    let mut turns = 0.0;
    let mut last = f64::NEG_INFINITY;
    for point in &mut points {
        if last.is_finite() && point.0 + turns < last - 170.0 {
            turns += 360.0;
        }
        point.0 += turns;
        if point.0 < last - 1e-9 {
            let needs = "angles that rise, or fall, all the way";
            return Err(Fault::new(path, &format!("{:.2} after {last:.2} deg", point.0), needs));
        }
        last = point.0;
    }
    let mut single: Vec<(f64, f64, f64)> = Vec::with_capacity(points.len());
    for (angle, lift) in points {
        match single.last_mut().filter(|kept| angle - kept.0 < 1e-9) {
            Some(kept) if (kept.1 / kept.2 - lift).abs() > SAME => {
                let given = format!("two lifts at {angle:.2} deg");
                return Err(Fault::new(path, &given, "one lift for each angle, or two within .003 in"));
            }
            Some(kept) => (kept.1, kept.2) = (kept.1 + lift, kept.2 + 1.0),
            None => single.push((angle, lift, 1.0)),
        }
    }
    Ok(single.into_iter().map(|(angle, sum, count)| (angle, sum / count)).collect())
}

/// One lobe with some base circle on both sides, at most [`MOST_POINTS`] points.
fn whole_lobe(points: Vec<(f64, f64)>, path: &str) -> Result<Vec<(f64, f64)>, Fault> {
    let least = points.iter().map(|point| point.1).fold(f64::INFINITY, f64::min);
    let most = points.iter().map(|point| point.1).fold(f64::NEG_INFINITY, f64::max);
    if !(LIFTS.0..=LIFTS.1).contains(&(most - least)) {
        let given = format!("{:.3} in of lift", (most - least) / INCH);
        return Err(Fault::new(path, &given, "a lobe lift of .100 to .700 in (2.5 to 17.8 mm)")
            .cure("name the unit in the heading, as in \"lift (mm)\""));
    }
    if least.abs() > MOST_OFFSET {
        let given = format!("{:.3} in at the lowest", least / INCH);
        return Err(Fault::new(path, &given, "zero lift on the base circle, within .020 in"));
    }
    let thin = thinned(&points);
    // The base circle is where the lowest quarter of the readings lie, not the lowest of them.
    let mut low: Vec<f64> = thin.iter().map(|point| point.1).collect();
    low.sort_by(f64::total_cmp);
    let base = low[low.len() / 8];
    let mut points: Vec<(f64, f64)> = thin.iter().map(|point| (point.0, point.1 - base)).collect();
    let peak = (0..points.len()).max_by(|a, b| points[*a].1.total_cmp(&points[*b].1)).unwrap_or(0);
    let ends_high = |end: (f64, f64)| end.1 > 0.5 * (most - least);
    // Half a lobe ends at full lift: the other flank is its mirror.
    if ends_high(points[0]) || ends_high(points[points.len() - 1]) {
        let top = points[peak].0;
        let half: Vec<_> = points.iter().copied().filter(|point| (point.0 - top).abs() > 1e-9).collect();
        points.extend(half.iter().map(|point| (2.0 * top - point.0, point.1)));
        points.sort_by(|a, b| a.0.total_cmp(&b.0));
    }
    trimmed(&points, path)
}

/// Means of equal spans where there are more points than are kept.
fn thinned(points: &[(f64, f64)]) -> Vec<(f64, f64)> {
    if points.len() <= MOST_POINTS {
        return points.to_vec();
    }
    let (first, last) = (points[0].0, points[points.len() - 1].0);
    let span = (last - first) / MOST_POINTS as f64;
    let mut bins = vec![(0.0, 0.0, 0.0); MOST_POINTS];
    for (angle, lift) in points {
        let bin = &mut bins[(((angle - first) / span) as usize).min(MOST_POINTS - 1)];
        *bin = (bin.0 + angle, bin.1 + lift, bin.2 + 1.0);
    }
    bins.iter().filter(|bin| bin.2 > 0.0).map(|bin| (bin.0 / bin.2, bin.1 / bin.2)).collect()
}

/// The lobe with a little base circle on both sides, without gaps.
fn trimmed(points: &[(f64, f64)], path: &str) -> Result<Vec<(f64, f64)>, Fault> {
    // Noise of the base circle is no lift: three readings in a row must stand off it.
    let risen = |three: &&[(f64, f64)]| three.iter().all(|point| point.1 > RISEN);
    let (Some(first), Some(last)) = (points.windows(3).find(risen), points.windows(3).rev().find(risen)) else {
        return Err(Fault::new(path, "no lift", "a lobe"));
    };
    let (first, last) = (first[0], last[2]);
    let kept: Vec<_> =
        points.iter().copied().filter(|point| point.0 >= first.0 - KEPT && point.0 <= last.0 + KEPT).collect();
    if let Some(gap) = kept.windows(2).find(|two| two[1].0 - two[0].0 > WIDEST_GAP) {
        let given = format!("nothing between {:.1} and {:.1} cam deg", gap[0].0, gap[1].0);
        return Err(Fault::new(path, &given, "a reading at least every 12 cam degrees"));
    }
    // Readings of the base circle are noise about zero; the lobe begins and ends on it.
    let mut kept = kept;
    let end = kept.len() - 1;
    (kept[0].1, kept[end].1) = (kept[0].1.min(RISEN), kept[end].1.min(RISEN));
    Ok(kept)
}

#[cfg(test)]
mod tests {
    use super::*;

    /// Lift of a made-up lobe, m, at a cam degree from full lift.
    fn lift(deg: f64) -> f64 {
        let share = (1.0 - (deg / 64.0).abs()).max(0.0);
        0.320 * INCH * (10.0 * share.powi(3) - 15.0 * share.powi(4) + 6.0 * share.powi(5))
    }

    fn document() -> Value {
        json!({ "candidates": [{ "id": "a", "cam": { "intake": { "lobe_lift": "0.3 in", "checks": [] } } }] })
    }

    fn taken(text: &str) -> Result<(Vec<f64>, Vec<f64>), Fault> {
        let mut document = document();
        import(&mut document, 0, "intake", text, UnitSystem::Inch)?;
        let lobe = &document["candidates"][0]["cam"]["intake"];
        assert!(lobe.get("checks").is_none());
        let lifts = lobe["profile"]["lift"].as_array().unwrap().iter();
        let lifts = lifts.map(|l| parse(l.as_str().unwrap(), Dimension::Length).unwrap()).collect();
        let angles = lobe["profile"]["cam_deg"].as_array().unwrap().iter().map(|a| a.as_f64().unwrap()).collect();
        Ok((angles, lifts))
    }

    fn file(heading: &str, line: impl Fn(f64, f64) -> String) -> String {
        let rows = (-90..=90).map(|i| line(f64::from(i), lift(f64::from(i))));
        std::iter::once(heading.to_owned()).chain(rows).collect::<Vec<_>>().join("\n")
    }

    fn same_lobe(text: &str) {
        let (angles, lifts) = taken(text).unwrap_or_else(|fault| panic!("{fault}: {}", &text[..60]));
        let top = (0..lifts.len()).max_by(|a, b| lifts[*a].total_cmp(&lifts[*b])).unwrap();
        follows(&angles, &lifts, angles[top]);
    }

    fn follows(angles: &[f64], lifts: &[f64], top: f64) {
        for (angle, found) in angles.iter().zip(lifts) {
            assert!((lift(angle - top) - found).abs() < 2e-5, "{angle} {found}");
        }
    }

    #[test]
    fn a_lobe_is_the_same_in_every_dress() {
        same_lobe(&file("cam deg, lift (in)", |a, l| format!("{a}, {:.5}", l / INCH)));
        same_lobe(&file("Winkel;Hub [mm]", |a, l| format!("{a};{:.4}", l * 1e3).replace('.', ",")));
        same_lobe(&file("crank deg\tlift", |a, l| format!("{}\t{:.5}", 2.0 * a, l / INCH)));
        same_lobe(&file("deg lift", |a, l| format!("{} {:.5}", (a + 300.0) % 360.0, l / INCH)));
        same_lobe(&file("deg lift", |a, l| format!("{} {:.5}", -a, l / INCH)));
        same_lobe(&file("deg lift", |a, l| format!("{a} {:.5} in", l / INCH + 0.004)));
        let one_flank: Vec<_> = (-90..=0).map(|i| format!("{i} {:.5}", lift(f64::from(i)) / INCH)).collect();
        same_lobe(&one_flank.join("\n"));
    }

    #[test]
    fn a_hundred_thousand_lines_are_thinned() {
        let rows: Vec<_> = (0..100_000)
            .map(|i| {
                let angle = -90.0 + 180.0 * f64::from(i) / 99_999.0;
                let noise = if i % 2 == 0 { 1e-6 } else { -1e-6 };
                format!("{angle:.4},{:.6}", (lift(angle) + noise) / INCH)
            })
            .collect();
        let (angles, lifts) = taken(&format!("cam,lift\n{}", rows.join("\n"))).expect("taken");
        assert!(angles.len() <= MOST_POINTS);
        follows(&angles, &lifts, 0.0);
    }

    #[test]
    fn what_cannot_be_a_lobe_is_refused_with_its_reason() {
        let why = |text: &str| taken(text).unwrap_err().to_string();
        let good = file("deg,lift", |a, l| format!("{a},{:.5}", l / INCH));
        assert!(why(&good.replace("-30,", "-60,")).contains("rise"), "descending in the middle");
        assert!(why(&good.replace("-30,", "x,")).contains("an angle and a lift"));
        assert!(why(&file("deg,lift (mm)", |a, l| format!("{a},{:.5}", l / INCH))).contains("name the unit"));
        assert!(why(&file("deg,lift", |a, l| format!("{a},{:.5}", l / INCH + 0.2))).contains("zero lift"));
        assert!(why("1;2\n2;3").contains("12 points"));
        let gap: Vec<_> = good.lines().filter(|line| !(line.starts_with("-2") || line.starts_with("-1"))).collect();
        assert!(why(&gap.join("\n")).contains("nothing between"), "{}", why(&gap.join("\n")));
        let twice = good.replace("-30,", "-31,");
        assert!(why(&twice).contains("two lifts"), "{}", why(&twice));
    }
}
