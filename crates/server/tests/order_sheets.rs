//! Orders as workbooks and pages, written by the program itself and opened by another library.

use calamine::{Data, Reader, Xlsx, open_workbook_from_rs};
use serde_json::{Value, json};
use std::io::Cursor;
use std::process::Command;
use upper_lobe_core::analysis::{Build, Side, Stages, order_card};

const TOW: &str = include_str!("../../../demo/tollgate-388-hauler.json");

/// The order of the tow demo's first candidate beside its third, which is in the engine; springs are here, studs are bought besides.
fn build() -> Value {
    let mut build: Value = serde_json::from_str(TOW).unwrap();
    build["name"] = "Tollgate <b>388</b> & more".into();
    build["target"]["existing"] = "c".into();
    let spring = build["candidates"][0]["train"]["spring"]["part"].clone();
    build["bought"] = json!([
        { "part": spring, "state": "here" },
        { "part": "Rocker studs, 7/16", "state": "ordered", "price": "96 USD", "lead_time": "9 days" },
    ]);
    build
}

fn ordered(form: &str) -> Vec<u8> {
    let folder = tempfile::tempdir().unwrap();
    let file = folder.path().join("build.json");
    std::fs::write(&file, build().to_string()).unwrap();
    let done = Command::new(env!("CARGO_BIN_EXE_upper-lobe"))
        .args(["order", file.to_str().unwrap(), "--candidate", "a", "--as", form])
        .output()
        .unwrap();
    assert!(done.status.success(), "{}", String::from_utf8_lossy(&done.stderr));
    done.stdout
}

#[test]
fn another_library_reads_the_workbook_as_the_card_says() {
    let card = order_card(&Build::from_value(build()).unwrap(), "a", &Stages::default()).unwrap();
    let mut book: Xlsx<_> = open_workbook_from_rs(Cursor::new(ordered("xlsx"))).expect("a workbook");
    assert_eq!(book.sheet_names(), ["Cam", "Parts", "To do"]);
    let cam = book.worksheet_range("Cam").unwrap();
    let text = |row: usize, column: usize| cam.get((row, column)).map(ToString::to_string).unwrap_or_default();
    // Whoever gets the file by itself reads what it is of; a file on disk knows no revision.
    assert_eq!((text(1, 0), text(1, 2)), ("Build".to_owned(), card.build.clone()));
    assert_eq!((text(2, 0), text(2, 2)), ("Candidate".to_owned(), card.candidate.clone()));
    for (row, line) in (3..).zip(&card.lines) {
        assert_eq!(text(row, 0), line.label);
        assert_eq!(text(row, 1), line.side.key());
        assert_eq!(text(row, 2), line.asked.inch);
        assert_eq!(text(row, 3), line.ground.as_ref().map(|own| own.inch.clone()).unwrap_or_default());
    }
    let parts = book.worksheet_range("Parts").unwrap();
    let rows: Vec<Vec<Data>> = parts.rows().map(<[Data]>::to_vec).collect();
    let studs = rows.iter().find(|row| row[1].to_string().starts_with("Rocker studs")).expect("the studs");
    assert_eq!(
        (studs[2].to_string(), studs[3].to_string(), studs[4].clone()),
        ("ordered".into(), "9 days".into(), Data::Float(96.0))
    );
    // Prices are numbers, and add up to what the card says.
    let sum: f64 = rows[1..=card.parts.len()]
        .iter()
        .filter_map(|row| if let Data::Float(own) = row[4] { Some(own) } else { None })
        .sum();
    let total: f64 = card.parts.iter().filter_map(|part| part.money).sum();
    assert!(sum > 96.0 && (sum - total).abs() < 1e-9, "{sum} {total}");
}

#[test]
fn a_page_shows_what_was_typed_and_never_runs_it() {
    let page = String::from_utf8(ordered("html")).unwrap();
    assert!(page.contains("Tollgate &lt;b&gt;388&lt;/b&gt; &amp; more") && !page.contains("<b>388"));
    assert!(!page.contains("<script") && !page.contains("http"), "nothing is fetched");
    let card = order_card(&Build::from_value(build()).unwrap(), "a", &Stages::default()).unwrap();
    for line in card.lines.iter().filter(|line| line.side == Side::Exhaust) {
        assert!(page.contains(&line.asked.inch), "{}", line.label);
    }
    assert!(page.contains("Still to buy") && page.contains("Drags along"));
}
