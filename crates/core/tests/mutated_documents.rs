//! Whatever the document accepts is answered: demo builds with fields moved by chance to anywhere in their ranges go through
//! every part without a panic and without a number that is none, and breathing ends with a curve or with what it lacks.
//!
//! `UPPER_LOBE_MUTATIONS=20000` and `UPPER_LOBE_BREATHED=500` run the whole of it; without them a small part.

use crate::support::{Chance, DEMOS, finite, scalars, wanted};
use serde_json::Value;
use std::sync::Arc;
use upper_lobe_core::analysis::{CurveJob, Effort, Halted, Job, PartName, Request, Stages, Watch, analyze};
use upper_lobe_core::build::Build;
use upper_lobe_core::document::{Kind, get, kind_of, set_field};
use upper_lobe_core::quantity::{UnitSystem, parse, restate};

/// One field moved, taken out, or put at another of its words; nothing when the document would refuse the text.
fn mutate(value: &mut Value, paths: &[String], chance: &mut Chance) -> Option<String> {
    let path = &paths[(chance.share() * paths.len() as f64) as usize];
    let kind = kind_of(path)?;
    let now = get(value, path)?.clone();
    let text = match (kind.dimension(), &now) {
        (_, _) if chance.share() < 0.1 && !path.ends_with(']') => String::new(),
        (Some(dimension), Value::String(text)) => {
            let si = parse(text, dimension).ok()?;
            // From a twentieth to twenty times, and sometimes the other way round.
            let factor = 20_f64.powf(2.0 * chance.share() - 1.0);
            let sign = if chance.share() < 0.1 { -1.0 } else { 1.0 };
            restate(text, dimension, sign * si * factor)?
        }
        (None, Value::Number(number)) => format!("{:.2}", number.as_f64()? * 4_f64.powf(2.0 * chance.share() - 1.0)),
        _ => {
            let Kind::Choice(words) = kind else { return None };
            words[(chance.share() * words.len() as f64) as usize].to_owned()
        }
    };
    let before = value.clone();
    if set_field(value, path, &text, UnitSystem::Inch).is_err() || Build::from_value(value.clone()).is_err() {
        *value = before;
        return None;
    }
    Some(format!("{path} = {text}"))
}

/// The next build of the chain: a few fields of a demo build moved by chance.
fn next(round: usize, chance: &mut Chance) -> (Build, Vec<String>) {
    let mut value: Value = serde_json::from_str(DEMOS[round % 3]).expect("a demo");
    let mut paths = Vec::new();
    scalars(&value, "", &mut paths);
    paths
        .retain(|path| !path.contains("sources.") && !matches!(path.as_str(), "format" | "version" | "name" | "notes"));
    let mut made = Vec::new();
    let most = 1 + (chance.share() * 4.0) as usize;
    for _ in 0..40 {
        made.extend(mutate(&mut value, &paths, chance));
        if made.len() == most {
            break;
        }
    }
    (Build::from_value(value).expect("accepted at every step"), made)
}

#[test]
fn any_accepted_document_is_answered_with_numbers() {
    let (stages, mut chance) = (Stages::default(), Chance(1010));
    for round in 0..wanted("UPPER_LOBE_MUTATIONS", 500) {
        let (build, made) = next(round, &mut chance);
        let place = (chance.share() * build.candidates().len() as f64) as usize;
        let id = build.candidates()[place].id.clone();
        let mut parts = PartName::cheap();
        // Advice asks for a hundred more answers: a share of the rounds does.
        parts.retain(|part| *part != PartName::Remedies || round % 50 == 0);
        let request = Request::of(Some(id), parts);
        let analysed = std::panic::catch_unwind(std::panic::AssertUnwindSafe(|| analyze(&build, &request, &stages)));
        let analysis = analysed.unwrap_or_else(|_| panic!("{made:?} panics")).expect("the candidate is there");
        finite(&format!("{analysis:?}"), &made);
    }
}

#[test]
fn breathing_of_any_accepted_document_ends_with_numbers_or_with_what_it_lacks() {
    let (stages, mut chance) = (Arc::new(Stages::default()), Chance(2020));
    let (mut done, mut lacking) = (0, 0);
    for round in 0..wanted("UPPER_LOBE_BREATHED", 25) {
        let (build, made) = next(round, &mut chance);
        let effort = if round % 4 == 0 { Effort::Screening } else { Effort::Fast };
        let run = || {
            let job =
                CurveJob::new(&build, None, (effort, None), Arc::clone(&stages)).expect("the candidate is there")?;
            job.run(&Watch::nobody())
        };
        let ended = std::panic::catch_unwind(std::panic::AssertUnwindSafe(run));
        match ended.unwrap_or_else(|_| panic!("{made:?} panics")) {
            Ok(curve) => {
                finite(&format!("{curve:?}"), &made);
                done += 1;
            }
            Err(Halted::Lacks { reason, .. }) => {
                assert!(!reason.is_empty(), "{made:?}");
                lacking += 1;
            }
            Err(Halted::Stopped) => panic!("{made:?}: nobody stopped it"),
        }
    }
    println!("{done} curves, {lacking} that lack something");
    assert!(done > lacking, "{done} curves, {lacking} that lack something");
}

/// A primary pipe a tenth as wide as the port, which once made a junction's pressure no number.
#[test]
fn a_pinched_header_is_answered() {
    let mut value: Value = serde_json::from_str(DEMOS[1]).expect("a demo");
    set_field(&mut value, "engine.exhaust.primary_diameter", "0.4 in", UnitSystem::Inch).expect("a field");
    let Ok(build) = Build::from_value(value) else { return };
    for view in build.candidates() {
        for effort in [Effort::Fast, Effort::Draft] {
            let job = CurveJob::new(&build, Some(&view.id), (effort, None), Arc::default()).expect("there");
            match job.and_then(|job| job.run(&Watch::nobody())) {
                Ok(curve) => finite(&format!("{curve:?}"), &[format!("{effort:?}")]),
                Err(halted) => assert!(matches!(halted, Halted::Lacks { .. }), "{halted:?}"),
            }
        }
    }
}
