//! Sessions whose readings are sizes of the document: lift by light and real spring, installed heights, drops to the piston.

use super::cells::{si, word};
use super::session::{Bench, Session};
use super::sisters::{Sister, by_valve, far, spread_of};
use super::told::{Said, Told, beside, in_words, joined, read, sentence, valve};
use crate::bench::repeated;
use crate::candidate::bench::DIAL;
use crate::candidate::blocks::closed_gap;
use crate::candidate::spring::height_sheet;
use crate::document::Side;
use crate::given::{Of, Place};
use crate::quantity::{Angle, Dimension, Force, INCH, Length, Shown, UnitSystem, format_finer};
use crate::report::HeightAt;

/// The load of a spring at full lift, N, as far as it may be off (common practice, no source: 5 lbf).
const LOADED: f64 = 5.0 * 4.448_221_6;
/// A height micrometer, m, half width that holds 95 of 100 (common practice, no source).
const MICROMETER: f64 = 0.002 * INCH;

/// Lift with the light spring and with the real one: what the train gives, and the readings that tell its ratio.
pub(super) fn lift_check(bench: &Bench<'_>, session: &Session<'_>) -> Told {
    let rows = session.node.cells("lifts");
    let of = |spring: &str| {
        let own = rows.iter().filter(|row| word(row, 0) == Some(spring));
        repeated(&own.filter_map(|row| si::<Length>(row, 1)).collect::<Vec<f64>>())
    };
    let (light, real) = (of("light"), of("real"));
    let Some(light) = light else { return Told::unclear(rows.len(), "the light spring first: it tells the ratio") };
    let own = bench.inputs.side(session.side);
    let doubt = light.half_width().unwrap_or(0.0).hypot(DIAL);
    let by_ratio = own.lobe().ok().zip(own.lift.as_ref().ok()).map(|(lobe, lift)| lift.ratio * lobe.lift().si());
    let mut told = Told::unclear(rows.len(), "");
    let label = "Lift, light spring".to_owned();
    told.figures.push(match by_ratio {
        Some(expected) => beside(label, (light.mean, expected), doubt, Dimension::Length),
        None => read(label, light.mean, Dimension::Length),
    });
    if let Some(real) = &real {
        told.figures.push(read("Lift, real spring".to_owned(), real.mean, Dimension::Length));
        let lost = light.mean - real.mean;
        told.figures.push(read("Lost to flex".to_owned(), lost.max(0.0), Dimension::Length));
        if lost < -DIAL {
            told.questions
                .push("more lift under the real spring than under the light one: are the two exchanged?".to_owned());
        }
    }
    told.says = by_ratio.map_or_else(
        || Shown::plain("read"),
        |expected| {
            let lobe = expected / own.lift.as_ref().map_or(1.0, |lift| lift.ratio);
            Shown::plain(format!("the rocker's ratio at full lift is {:.3}", light.mean / lobe))
        },
    );
    if told.questions.is_empty() {
        let load = |key: &str| session.node.quantity::<Force>(key).map(Force::si);
        let readings = [
            ("light_spring_lift", Some(light.mean), Dimension::Length, doubt),
            ("light_spring_load", load("light_load"), Dimension::Force, LOADED),
            ("running_lift", real.as_ref().map(|own| own.mean), Dimension::Length, doubt),
            ("running_load", load("real_load"), Dimension::Force, LOADED),
        ];
        let said = readings.into_iter().filter_map(|(key, si, dimension, doubt)| {
            let place = Place::new(Of::Readings, key, session.side);
            Some(Said::quantity(place, (si?, doubt), dimension, Shown::plain("as read")))
        });
        told.said = said.collect();
    }
    told.judged()
}

/// Installed heights of all valves, each mean of its readings, with what brings each to the height that is planned and what that
/// leaves to bind and to the seal; one far from its sisters is questioned.
pub(super) fn heights(bench: &Bench<'_>, session: &Session<'_>) -> Told {
    let rows = session.node.cells("heights");
    let mut told = Told::unclear(rows.len(), "");
    let (mut spreads, mut shimmed) = (Vec::new(), Vec::new());
    for side in Side::BOTH {
        let own = by_valve(&rows, side, 2);
        let Some(spread) = spread_of(own.iter().map(|own| own.size.mean)) else { continue };
        let wanted = bench.inputs.train(side).spring.installed_height.map(Length::si);
        for one in &own {
            let label = valve(one.cylinder, side);
            told.figures.push(match wanted {
                Some(wanted) => beside(label, (one.size.mean, wanted), MICROMETER, Dimension::Length),
                None => read(label, one.size.mean, Dimension::Length),
            });
        }
        let means: Vec<f64> = own.iter().map(|own| own.size.mean).collect();
        if let Some(sheet) = height_sheet(bench.inputs, side, &means) {
            let valves = own.iter().zip(&sheet.to_wanted.valves);
            told.figures
                .extend(valves.map(|(one, at)| in_words(format!("{}, to do", valve(one.cylinder, side)), to_do(at))));
            shimmed.push(sheet.to_wanted.says);
        }
        told.said.extend(measured(bench, &own, side));
        told.questions.extend(far(&own, side));
        spreads.push(sentence(spread, Dimension::Length, |by| format!("{} valves stand within {by}", side.key())));
    }
    if told.figures.is_empty() {
        return Told::unclear(rows.len(), "cylinder, side and height of each valve, without shims");
    }
    told.says = joined(&[joined(&spreads, ", ")].into_iter().chain(shimmed).collect::<Vec<_>>(), ". ");
    if !told.questions.is_empty() {
        told.said.clear();
    }
    told.judged()
}

/// What brings a valve to its height, and what is left there.
fn to_do(at: &HeightAt) -> Shown {
    let words = |read: &dyn Fn(&Shown) -> String| {
        let mut work: Vec<String> = at.lock.iter().map(|lock| format!("locks {}", read(lock))).collect();
        if !at.shims.is_empty() {
            work.push(format!("shims {}", at.shims.iter().map(read).collect::<Vec<_>>().join(" + ")));
        }
        let work = if work.is_empty() { "nothing".to_owned() } else { work.join(", ") };
        let off = match (at.is_short, at.is_off) {
            (true, _) => " (too short: seat deeper, or a taller retainer)",
            (false, true) => " (no pile of this kit)",
            (false, false) => "",
        };
        let left = |left: &Option<Shown>, to: &str| {
            left.as_ref().map_or_else(String::new, |own| format!(", {} {to}", read(own)))
        };
        let (height, seat) = (read(&at.height), read(&at.seat_load));
        format!(
            "{work}: {height}{off}, {seat} closed{}{}",
            left(&at.to_bind, "to bind"),
            left(&at.to_seal, "to the seal")
        )
    };
    Shown { inch: words(&|own| own.inch.clone()), metric: words(&|own| own.metric.clone()) }
}

/// The list of heights of a side, once every valve of it was read.
fn measured(bench: &Bench<'_>, own: &[Sister], side: Side) -> Option<Said> {
    let cylinders = bench.inputs.given.engine.cylinders?;
    let is_whole = own.len() as f64 == cylinders && own.iter().zip(1..).all(|(own, cylinder)| own.cylinder == cylinder);
    let texts: Vec<Vec<String>> =
        own.iter().map(|own| vec![format_finer(own.size.mean, Dimension::Length, UnitSystem::Inch)]).collect();
    let place = Place::new(Of::Heights, "measured", side);
    is_whole.then(|| Said::rows(place, texts, Shown::plain(format!("{cylinders} valves as read"))))
}

/// Drops to the piston against the frame.
pub(super) fn drops(bench: &Bench<'_>, session: &Session<'_>) -> Told {
    let rows = session.node.rows::<Angle, Length>("drops").unwrap_or_default();
    let read_all: Vec<(f64, f64)> = rows.iter().map(|(at, drop)| (at.as_deg(), drop.si())).collect();
    if read_all.is_empty() {
        return Told::unclear(rows.len(), "degrees after top dead centre and the drop there");
    }
    let gap = match closed_gap(bench.inputs, session.side) {
        Ok(gap) => gap,
        Err(gap) => return Told::lacking(rows.len(), gap),
    };
    let mut told = Told::unclear(rows.len(), "");
    for (deg, drop) in &read_all {
        let expected = gap.at(*deg).along_stem.si();
        told.figures.push(beside(format!("Drop at {deg:.0} deg"), (*drop, expected), 2.0 * DIAL, Dimension::Length));
        if *drop < 0.0 {
            told.questions.push(format!("a drop of less than nothing at {deg:.0} deg: is the dial's sign right?"));
        }
    }
    let off: Vec<f64> = read_all.iter().map(|(deg, drop)| drop - gap.at(*deg).along_stem.si()).collect();
    let mean = off.iter().sum::<f64>() / off.len() as f64;
    told.says = sentence(mean.abs(), Dimension::Length, |by| {
        format!("{by} {} than frame, deck and gasket have it", if mean < 0.0 { "less" } else { "more" })
    });
    let at_top = read_all.iter().find(|(deg, _)| deg.abs() < 0.01);
    if let (Some((_, drop)), true) = (at_top, told.questions.is_empty()) {
        let place = Place::new(Of::Port, "piston_drop", session.side);
        let why = Shown::plain("as read at top dead centre");
        told.said.push(Said::quantity(place, (*drop, DIAL), Dimension::Length, why));
    }
    told.judged()
}
