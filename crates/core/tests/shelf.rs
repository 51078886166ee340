//! The parts shelf: sheets in and out, a part put into a candidate, what fits and what it drags along, an edited part.

use crate::support::by_hand;
use serde_json::{Value, json};
use upper_lobe_core::analysis::{PartName, Request, Stages, Verdict, analyze};
use upper_lobe_core::build::Build;
use upper_lobe_core::document::{Side, get};
use upper_lobe_core::edit::{Edit, apply};
use upper_lobe_core::parts::{FitReport, FitVerdict, Part, PartKind, fit, part_of, read_sheet, write_sheet};
use upper_lobe_core::quantity::UnitSystem;

const SHELF: &str = include_str!("../../../demo/parts.csv");
const TOW: &str = include_str!("../../../demo/tollgate-388-hauler.json");

fn shelf() -> Vec<Part> {
    read_sheet(SHELF, UnitSystem::Inch).unwrap_or_else(|f| panic!("{:?}", f.faults))
}

fn part(kind: PartKind, name: &str) -> Part {
    shelf().into_iter().find(|part| part.kind == kind && part.name == name).unwrap_or_else(|| panic!("no {name}"))
}

fn tow() -> Build {
    Build::read(TOW).expect("the demo is in order")
}

fn edited(build: &Build, edit: &Edit) -> Build {
    apply(build, edit, UnitSystem::Inch, &Stages::default()).unwrap_or_else(|f| panic!("{:?}", f.faults))
}

fn used(build: &Build, part: Part, side: Option<Side>) -> Build {
    edited(build, &Edit::UsePart { candidate: "a".into(), part, side })
}

fn set(build: &Build, field: &str, text: &str) -> Build {
    edited(build, &Edit::Set { field: field.into(), text: text.into() })
}

fn tried(part: &Part, side: Option<Side>) -> FitReport {
    fit(&tow(), "a", part, side, UnitSystem::Inch, &Stages::default()).unwrap_or_else(|f| panic!("{:?}", f.faults))
}

fn at<'a>(build: &'a Build, path: &str) -> Option<&'a Value> {
    get(build.value(), &format!("candidates[0].{path}"))
}

#[test]
fn the_demo_shelf_has_every_kind_with_prices_and_comes_back_as_it_went() {
    let parts = shelf();
    for kind in PartKind::ALL {
        assert!(parts.iter().filter(|part| part.kind == kind).count() >= 4, "{kind:?}");
    }
    assert!(parts.iter().all(|part| part.price.is_some() || part.kind == PartKind::Lobe), "parts cost something");
    let again = read_sheet(&write_sheet(&parts), UnitSystem::Metric).expect("its own sheet");
    assert_eq!(again, parts, "texts as typed, whatever the units on screen");
}

#[test]
fn every_cam_and_lobe_of_the_shelf_can_be_ground() {
    for part in shelf().into_iter().filter(|part| matches!(part.kind, PartKind::Cam | PartKind::Lobe)) {
        let name = part.name.clone();
        let build = used(&tow(), part, None);
        let request = Request::of(Some("a".into()), vec![PartName::Lobe]);
        let report = analyze(&build, &request, &Stages::default()).expect("analysed");
        let lobes = report.candidates[0].lobe.done();
        assert!(lobes.is_some(), "{name}: {:?}", report.candidates[0].lobe);
    }
}

#[test]
fn a_part_takes_the_place_of_the_old_one_and_leaves_what_was_set() {
    let lifters = part(PartKind::Lifter, "Hydraulic roller, short travel");
    let build = used(&tow(), lifters, None);
    let lifter = at(&build, "train.lifter").expect("there");
    assert_eq!((&lifter["travel"], &lifter["preload"]), (&json!("0.055 in"), &json!("0.026 in")));
    assert_eq!((&lifter["part"], &lifter["price"]), (&json!("Hydraulic roller, short travel"), &json!("690 USD")));
    assert_eq!(lifter["sources"]["travel"], json!("card"));
    let flat = used(&build, part(PartKind::Lifter, "Hydraulic flat"), None);
    let lifter = at(&flat, "train.lifter").expect("there");
    assert_eq!(
        (lifter.get("roller_diameter"), &lifter["travel"]),
        (None, &json!("0.130 in")),
        "nothing of a roller is left"
    );
}

#[test]
fn an_installed_height_that_was_measured_stays() {
    let springs = part(PartKind::Spring, "Dual 245 / 606");
    let build = used(&tow(), springs.clone(), None);
    assert_eq!(at(&build, "train.spring.installed_height"), Some(&json!("1.800 in")));
    assert_eq!(at(&build, "train.spring.sources.installed_height"), Some(&json!("measured")));
    let bare = set(&tow(), "candidates[0].train.spring.installed_height", "");
    let build = used(&bare, springs, None);
    assert_eq!(at(&build, "train.spring.installed_height"), Some(&json!("2.000 in")), "the card's where none was set");
}

#[test]
fn a_part_for_one_side_leaves_the_other_what_it_was() {
    let rocker = part(PartKind::Rocker, "Aluminium stud roller 1.65");
    let build = used(&tow(), rocker, Some(Side::Exhaust));
    let ratio = |side: &str| {
        let own = at(&build, &format!("train.rocker.{side}.ratio")).or_else(|| at(&build, "train.rocker.ratio"));
        own.map(Value::to_string)
    };
    assert_eq!((ratio("intake"), ratio("exhaust")), (Some("1.60".into()), Some("1.65".into())));
    assert_eq!(at(&build, "train.rocker.exhaust.part"), Some(&json!("Aluminium stud roller 1.65")));
}

#[test]
fn a_larger_valve_changes_the_head_of_this_candidate_alone() {
    let valve = part(PartKind::Valve, "Intake 2.080, stainless");
    let build = used(&tow(), valve.clone(), Some(Side::Intake));
    assert_eq!(at(&build, "changes.engine.intake.valve_diameter"), Some(&json!("2.080 in")));
    assert_eq!(get(build.value(), "engine.intake.valve_diameter"), Some(&json!("2.055 in")));
    let drags = tried(&valve, Some(Side::Intake)).drags;
    assert!(drags.iter().any(|drag| drag.what.starts_with("Seats and throats for heads .025 in larger")), "{drags:?}");
    let same = used(&tow(), part(PartKind::Valve, "Intake 2.055, stainless"), Some(Side::Intake));
    assert_eq!(at(&same, "changes"), None, "a valve of the same size changes nothing of the engine");
}

#[test]
fn a_flat_lifter_never_goes_on_a_roller_cam() {
    let cam = used(&tow(), part(PartKind::Cam, "Hydraulic roller 210/218-112"), None);
    let flat = part(PartKind::Lifter, "Hydraulic flat");
    let report = fit(&cam, "a", &flat, None, UnitSystem::Inch, &Stages::default()).expect("tried");
    assert_eq!(report.verdict, FitVerdict::Incompatible);
    let told = report.margins.iter().find(|margin| margin.id == "lifter_on_cam").expect("told");
    assert!(told.why.as_deref().is_some_and(|why| why.contains("digs its edge")), "{told:?}");
    assert!(report.drags.iter().any(|drag| drag.what == "A cam ground for flat lifters"), "{:?}", report.drags);
}

#[test]
fn a_deactivating_lifter_takes_only_so_much_lobe() {
    let report = tried(&part(PartKind::Lifter, "Hydraulic roller, deactivating"), None);
    assert!(report.margins.iter().all(|margin| margin.id != "lifter_lift"), "318 and 326 are under 330");
    let big = used(&tow(), part(PartKind::Cam, "Hydraulic roller 224/232-112"), None);
    let deactivating = part(PartKind::Lifter, "Hydraulic roller, deactivating");
    let report = fit(&big, "a", &deactivating, None, UnitSystem::Inch, &Stages::default()).expect("tried");
    assert_eq!(report.verdict, FitVerdict::Incompatible);
}

#[test]
fn a_smaller_base_circle_drags_longer_pushrods_along() {
    // 1.420 to 1.340: half of .080 is .040.
    let report = tried(&part(PartKind::Cam, "Hydraulic roller 224/232-112, small base"), None);
    assert!(report.drags.iter().any(|drag| drag.what == "Pushrods .040 in longer"), "{:?}", report.drags);
    assert!(report.margins.iter().any(|margin| margin.id == "piston_clearance"), "a longer duration comes nearer");
    assert!(report.changes.iter().any(|change| change.field.ends_with("base_circle_diameter")));
}

#[test]
fn a_stronger_spring_tells_every_margin_it_moves_worst_first() {
    let report = tried(&part(PartKind::Spring, "Dual 245 / 606"), None);
    let ids: Vec<&str> = report.margins.iter().map(|margin| margin.id.as_str()).collect();
    for id in ["seat_load", "open_load", "contact_stress", "hand_check"] {
        assert!(ids.contains(&id), "{id}: {ids:?}");
    }
    let failing = report.margins.iter().take_while(|margin| margin.verdict_after == Some(Verdict::Fails)).count();
    assert!(failing >= 1 && report.verdict != FitVerdict::Fits, "{:?}", report.margins[0]);
}

#[test]
fn trying_a_part_is_what_using_it_does() {
    let rocker = part(PartKind::Rocker, "Aluminium stud roller 1.65");
    let report = tried(&rocker, None);
    let build = used(&tow(), rocker, None);
    let request = Request::of(Some("a".into()), vec![PartName::Limits]);
    let limits = &analyze(&build, &request, &Stages::default()).expect("analysed").candidates[0].limits;
    for margin in report.margins.iter().filter(|margin| margin.after.is_some()) {
        let line = limits.iter().find(|line| line.title == margin.title).expect("the same line");
        assert_eq!(line.shown.as_ref().map(|shown| &shown.margin), margin.after.as_ref(), "{}", margin.title);
    }
}

#[test]
fn an_edited_part_says_so_and_stays_a_named_copy() {
    let springs = part(PartKind::Spring, "Beehive 145 / 372");
    let build = used(&tow(), springs.clone(), None);
    let set_up = set(&build, "candidates[0].train.spring.installed_height", "1.780");
    assert_eq!(at(&set_up, "train.spring.part"), Some(&json!("Beehive 145 / 372")), "shimming makes no other spring");
    let changed = set(&set_up, "candidates[0].train.spring.mass", "90 g");
    assert_eq!(at(&changed, "train.spring.part"), Some(&json!("Beehive 145 / 372, edited")));
    let again = set(&changed, "candidates[0].train.spring.mass", "89 g");
    assert_eq!(at(&again, "train.spring.part"), Some(&json!("Beehive 145 / 372, edited")));
    let fresh = used(&again, springs, None);
    assert_eq!(at(&fresh, "train.spring.part"), Some(&json!("Beehive 145 / 372")), "taken from the shelf once more");
    let kept = part_of(again.value(), 0, PartKind::Spring, Side::Intake, "Weighed beehives").expect("a part");
    assert_eq!((kept.copy_of.as_deref(), &kept.fields["mass"]), (Some("Beehive 145 / 372"), &json!("89 g")));
    assert_eq!(kept.fields.get("installed_height"), Some(&json!("1.780 in")), "as a recommendation");
}

#[test]
fn a_side_edited_by_itself_is_another_part_on_that_side() {
    let build = used(&tow(), part(PartKind::Rocker, "Aluminium stud roller 1.60"), None);
    let changed = set(&build, "candidates[0].train.rocker.exhaust.ratio", "1.70");
    assert_eq!(at(&changed, "train.rocker.exhaust.part"), Some(&json!("Aluminium stud roller 1.60, edited")));
    assert_eq!(at(&changed, "train.rocker.part"), Some(&json!("Aluminium stud roller 1.60")));
}

#[test]
fn a_dragged_event_makes_another_cam_and_advancing_it_does_not() {
    use upper_lobe_core::edit::{CardNumber, Event};
    let build = used(&tow(), part(PartKind::Cam, "Hydraulic roller 210/218-112"), None);
    let advanced = edited(
        &build,
        &Edit::TypeCard { candidate: "a".into(), number: CardNumber::IntakeCentreline, text: "105".into() },
    );
    assert_eq!(at(&advanced, "cam.part"), Some(&json!("Hydraulic roller 210/218-112")));
    let moved =
        edited(&build, &Edit::TypeEvent { candidate: "a".into(), event: Event::IntakeCloses, text: "38".into() });
    assert_eq!(at(&moved, "cam.part"), Some(&json!("Hydraulic roller 210/218-112, edited")));
}

#[test]
fn what_a_candidate_has_can_be_kept_and_used_again() {
    for kind in PartKind::ALL {
        let name = format!("Own {}", kind.word());
        let kept = part_of(tow().value(), 0, kind, Side::Intake, &name).unwrap_or_else(|f| panic!("{:?}", f.faults));
        let side = matches!(kind, PartKind::Lobe | PartKind::Valve).then_some(Side::Intake);
        let again = used(&tow(), kept.clone(), side);
        let once_more = part_of(again.value(), 0, kind, Side::Intake, &name).expect("a part");
        assert_eq!(once_more.fields, kept.fields, "{kind:?}");
    }
    let nothing = part_of(Build::blank("Empty").unwrap().value(), 0, PartKind::Spring, Side::Intake, "None");
    assert_eq!(nothing.unwrap_err().faults[0].field, "spring");
}

#[test]
fn an_empty_candidate_becomes_a_running_train_by_parts_alone() {
    let blank = Build::blank("From the shelf").unwrap();
    let chosen = [
        (PartKind::Cam, "Hydraulic roller 218/226-112"),
        (PartKind::Lifter, "Hydraulic roller, link bar"),
        (PartKind::Pushrod, "5/16 x .080, 7.720"),
        (PartKind::Rocker, "Aluminium stud roller 1.60"),
        (PartKind::Spring, "Beehive 145 / 372"),
        (PartKind::Retainer, "Steel, beehive 1.080"),
    ];
    let build = chosen.into_iter().fold(blank, |build, (kind, name)| used(&build, part(kind, name), None));
    let request = Request::of(None, vec![PartName::Lift, PartName::Train]);
    let report = analyze(&build, &request, &Stages::default()).expect("analysed").candidates.remove(0);
    let lift = report.lift.done().expect("known").intake.clone();
    // .334 in at 1.60 promises .534 in; give and flex leave it some .02 to .05 less.
    assert!((lift.net_mm / 25.4 - 0.334 * 1.60).abs() < 1e-6, "{lift:?}");
    assert!((0.480..0.520).contains(&(lift.running_mm / 25.4)), "{lift:?}");
    assert!(report.train.done().is_some_and(|train| train.intake.rocker.is_some()));
}

#[test]
fn sheets_come_with_other_marks_units_and_heads() {
    let wanted = read_sheet(
        "part_kind,name,form,points\nspring,One,single,1.8 in | 120 lbf; 1.3 in | 300 lbf\n",
        UnitSystem::Inch,
    )
    .unwrap();
    for text in [
        "\u{feff}Part_kind;Name;Form;points\r\nspring;One;single;\"1,8 in | 120 lbf; 1,3 in | 300 lbf\"\r\n",
        "part_kind\tname\tform\tpoints\nspring\tOne\tsingle\t1.8 in | 120 lbf; 1.3 in | 300 lbf\n\n",
    ] {
        assert_eq!(read_sheet(text, UnitSystem::Inch).unwrap(), wanted, "{text:?}");
    }
    let bare = read_sheet("part_kind,name,length (mm),wall\npushrod,P,196,.08\n", UnitSystem::Inch).unwrap();
    assert_eq!((&bare[0].fields["length"], &bare[0].fields["wall"]), (&json!("196 mm"), &json!("0.08 in")));
}

#[test]
fn rubbish_is_refused_with_line_and_column_and_all_at_once() {
    let text = "part_kind,name,price,mass,kind\nlifter,=cmd(),dear,12 furlongs,round\nwheel,W,,,\nlifter,A,1 USD,100 g,hydraulic_flat\nlifter,A,1 USD,100 g,hydraulic_flat\npushrod,B,,100 g,steel\n";
    let faults = read_sheet(text, UnitSystem::Inch).unwrap_err().faults;
    let fields: Vec<&str> = faults.iter().map(|fault| fault.field.as_str()).collect();
    assert_eq!(fields, ["line 2, mass", "line 3, part_kind", "line 5, name", "line 6, kind"]);
    for (text, field) in [
        ("", "heading"),
        ("part_kind,name\n", "file"),
        ("name\nA\n", "heading"),
        ("part_kind,name,colour\nlifter,A,blue\n", "heading"),
        ("part_kind,name,mass,mass\nlifter,A,1 g,2 g\n", "heading"),
    ] {
        assert_eq!(read_sheet(text, UnitSystem::Inch).unwrap_err().faults[0].field, field, "{text:?}");
    }
    let name = read_sheet("part_kind,name,mass\nlifter,=1+1,100 g\n", UnitSystem::Inch).unwrap_err();
    assert!(name.faults[0].cure.as_deref().is_some_and(|cure| cure.contains("formula")), "{name:?}");
    let long = format!("part_kind,name,mass\n{}", "lifter,A,100 g\n".repeat(6000));
    assert!(!read_sheet(&long, UnitSystem::Inch).unwrap_err().faults.is_empty());
}

#[test]
fn cams_of_the_shelf_are_drawn_with_the_lift_their_card_says_and_other_parts_are_not() {
    let parts = shelf();
    let stages = Stages::default();
    for part in &parts {
        let drawn = upper_lobe_core::parts::outlines(part, &stages);
        let lift = |side: &str| part.fields.get(side).and_then(|lobe| lobe["lobe_lift"].as_str());
        let lifts = match part.kind {
            PartKind::Cam => [lift("intake"), lift("exhaust")],
            PartKind::Lobe => [part.fields.get("lobe_lift").and_then(Value::as_str), None],
            _ => [None, None],
        };
        assert_eq!(drawn.len(), lifts.iter().flatten().count(), "{}", part.name);
        for (lobe, lift) in drawn.iter().zip(lifts.into_iter().flatten()) {
            let most = lobe.lift_mm.iter().copied().fold(0.0, f64::max);
            assert!((most - by_hand::number(lift)).abs() < 0.02, "{}: {most} of {lift}", part.name);
            assert_eq!(lobe.cam_deg.len(), lobe.lift_mm.len());
        }
    }
}
