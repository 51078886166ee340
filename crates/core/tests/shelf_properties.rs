//! What holds for any part and any sheet: no text breaks the reader, what is written comes back, every part can be tried
//! everywhere, and what is used can be taken out again.

use crate::support::{DEMOS, SHELF};
use proptest::prelude::*;
use serde_json::{Map, Value};
use upper_lobe_core::analysis::Stages;
use upper_lobe_core::build::Build;
use upper_lobe_core::document::{Kind, Side};
use upper_lobe_core::edit::{Edit, apply};
use upper_lobe_core::parts::{Part, PartKind, fit, part_of, read_sheet, write_sheet};
use upper_lobe_core::quantity::UnitSystem;

/// A value a field may hold, a share of the way through its range.
fn value_of(kind: &Kind, share: f64) -> Option<Value> {
    Some(match kind {
        Kind::Quantity { dimension, .. } => {
            let (low, high) = kind.si_range().ok()?;
            let si = low + share * (high - low);
            let unit = dimension.units().iter().find(|unit| unit.symbol == kind.bare_unit())?;
            let number = format!("{:.4}", (si - unit.offset) / unit.factor);
            Value::from(format!("{number} {}", unit.symbol))
        }
        Kind::Choice(words) => Value::from(words[((share * words.len() as f64) as usize).min(words.len() - 1)]),
        Kind::Integer { min, max } => Value::from(min + (share * (max - min) as f64) as i64),
        _ => return None,
    })
}

/// A part with some of its plain fields, each somewhere in the middle of its range.
fn some_part() -> impl Strategy<Value = Part> {
    let kind = prop::sample::select(PartKind::ALL.to_vec());
    (kind, "[A-Za-z][A-Za-z0-9 /.,;|\"'-]{0,30}", prop::collection::vec(0.1..0.9_f64, 40), any::<u64>())
        .prop_filter_map("a part of no field is none", |(kind, name, shares, mask)| {
            let mut fields = Map::new();
            for (place, (path, field)) in kind.leaves().into_iter().enumerate() {
                let wanted = mask >> (place % 64) & 1 == 1 && !path.contains('.');
                if let Some(value) = value_of(&field.kind, shares[place % shares.len()]).filter(|_| wanted) {
                    fields.insert(path, value);
                }
            }
            let name = name.trim().to_owned();
            let price = (mask % 3 == 0).then(|| "12.5 USD".to_owned());
            let part = Part { kind, name, price, lead_time: None, copy_of: None, notes: None, fields };
            part.checked().ok()
        })
}

proptest! {
    #![proptest_config(ProptestConfig::with_cases(200))]

    #[test]
    fn any_text_is_a_sheet_or_is_refused(text in "(part_kind[,;\t]name[^\u{0}]{0,80}\n)?[^\u{0}]{0,300}") {
        match read_sheet(&text, UnitSystem::Inch) {
            Ok(parts) => prop_assert!(!parts.is_empty()),
            Err(faults) => prop_assert!(!faults.faults.is_empty() && faults.faults.len() <= 101),
        }
    }

    #[test]
    fn any_part_comes_back_from_a_sheet_as_it_went(part in some_part(), other in some_part()) {
        let parts: Vec<Part> =
            if (part.kind, &part.name) == (other.kind, &other.name) { vec![part] } else { vec![part, other] };
        let text = write_sheet(&parts);
        prop_assert_eq!(read_sheet(&text, UnitSystem::Metric).map_err(|f| f.faults), Ok(parts));
    }

    #[test]
    fn any_part_is_used_whole_or_refused_and_can_be_taken_out_again(part in some_part()) {
        let build = Build::read(DEMOS[0]).unwrap();
        let stages = Stages::default();
        let edit = Edit::UsePart { candidate: "a".into(), part: part.clone(), side: None };
        if let Ok(used) = apply(&build, &edit, UnitSystem::Inch, &stages) {
            let back = part_of(used.value(), 0, part.kind, Side::Intake, "Back").unwrap();
            for (key, value) in &part.fields {
                let set_before = part.kind.recommended().contains(&key.as_str());
                prop_assert!(set_before || back.fields.get(key) == Some(value), "{} of {:?}", key, part.kind);
            }
        }
    }
}

#[test]
fn every_part_can_be_tried_in_every_demo_on_every_side() {
    let (shelf, stages) = (read_sheet(SHELF, UnitSystem::Inch).unwrap(), Stages::default());
    let mut tried = 0;
    for text in DEMOS {
        let build = Build::read(text).unwrap();
        for part in &shelf {
            for side in [None, Some(Side::Intake), Some(Side::Exhaust)] {
                tried += 1;
                let report = match fit(&build, "a", part, side, UnitSystem::Metric, &stages) {
                    Ok(report) => report,
                    // An exhaust valve cannot pass what the intake port was measured to flow.
                    Err(refused) if refused.faults.iter().all(|f| f.field.starts_with("engine.intake.flow[")) => {
                        assert!(part.kind == PartKind::Valve && side != Some(Side::Exhaust), "{}", part.name);
                        continue;
                    }
                    Err(refused) => panic!("{} in {}: {:?}", part.name, build.name(), refused.faults),
                };
                let other = if side == Some(Side::Intake) { "exhaust" } else { "intake" };
                if side.is_some() && part.kind != PartKind::Cam {
                    // What the intake traps, the exhaust valve opens against.
                    let mut own = report.margins.iter().filter(|margin| margin.id != "exhaust_opening");
                    let stray = own.find(|margin| {
                        margin.title.to_lowercase().starts_with(other) && margin.verdict_before != margin.verdict_after
                    });
                    assert!(stray.is_none(), "{} on one side moves the other: {stray:?}", part.name);
                }
            }
        }
    }
    assert_eq!(tried, 3 * 3 * shelf.len());
}

#[test]
fn a_build_with_every_part_of_the_shelf_stays_a_build() {
    let (shelf, stages) = (read_sheet(SHELF, UnitSystem::Inch).unwrap(), Stages::default());
    let mut build = Build::read(DEMOS[1]).unwrap();
    for part in shelf {
        // An exhaust valve is too small for what the intake port flows.
        let both = if part.kind == PartKind::Valve { None } else { Some(None) };
        for side in both.into_iter().chain([Some(Side::Exhaust)]) {
            let edit = Edit::UsePart { candidate: "b".into(), part: part.clone(), side };
            build = apply(&build, &edit, UnitSystem::Inch, &stages).unwrap_or_else(|f| panic!("{:?}", f.faults));
        }
    }
    let again = Build::read(&build.text()).expect("its own text");
    assert_eq!(again.value(), build.value());
    // Candidates that were not asked are what they were.
    let before = Build::read(DEMOS[1]).unwrap();
    assert_eq!(again.value()["candidates"][0], before.value()["candidates"][0]);
    assert_ne!(again.value()["candidates"][1], before.value()["candidates"][1]);
    assert_eq!(again.value()["engine"], before.value()["engine"], "the engine belongs to all of them");
}
