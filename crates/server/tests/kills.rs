//! No acknowledged save is lost when the server is killed under write load.
//!
//! Counted so: each writer owns one build and notes a revision only after the answer to its save has
//! come. After the kill a new server opens the same database; every noted revision must be there to the
//! letter, and at most one more for each writer, the save that was under way. `UPPER_LOBE_KILLS` sets how
//! often (200 for the full count).

use crate::served::{get, serve};
use serde_json::{Value, json};
use std::sync::Arc;
use std::sync::atomic::{AtomicBool, Ordering};
use std::time::Duration;

const WRITERS: usize = 3;

fn document(writer: usize, mark: u64) -> String {
    json!({ "format": "upper-lobe.build", "version": 1, "name": format!("writer {writer}"), "notes": format!("mark {mark}") })
        .to_string()
}

/// One request; `None` when the server went away.
fn send(method: &str, url: &str, body: &Value) -> Option<Value> {
    let agent = ureq::AgentBuilder::new().timeout(Duration::from_secs(5)).build();
    let answer = agent.request(method, url).set("content-type", "application/json").send_string(&body.to_string());
    serde_json::from_str(&answer.ok()?.into_string().ok()?).ok()
}

/// What a writer knows to be saved.
#[derive(Clone, Copy)]
struct Noted {
    build: i64,
    revision: i64,
    mark: u64,
}

/// Saves as fast as answers come until the server is gone; returns the last acknowledged save.
fn write(url: &str, writer: usize, mut noted: Noted, gone: &AtomicBool) -> Noted {
    while !gone.load(Ordering::Relaxed) {
        let mark = noted.mark + 1;
        let body = json!({ "base_revision": noted.revision, "document": document(writer, mark) });
        let Some(saved) = send("PUT", &format!("{url}/api/builds/{}", noted.build), &body) else { return noted };
        noted = Noted { revision: saved["revision"].as_i64().expect("a revision"), mark, ..noted };
    }
    noted
}

#[test]
fn no_acknowledged_save_is_lost_when_the_server_is_killed() {
    let kills: u64 = std::env::var("UPPER_LOBE_KILLS").ok().and_then(|n| n.parse().ok()).unwrap_or(6);
    let folder = tempfile::tempdir().expect("a folder");
    let database = folder.path().join("killed.db");
    let mut served = serve(&database);
    let mut noted: Vec<Noted> = (0..WRITERS)
        .map(|writer| {
            let made = send("POST", &format!("{}/api/builds", served.url), &json!({ "document": document(writer, 0) }));
            Noted { build: made.expect("made")["id"].as_i64().expect("a number"), revision: 1, mark: 0 }
        })
        .collect();
    let mut saves = 0;
    for kill in 0..kills {
        let gone = Arc::new(AtomicBool::new(false));
        let writers: Vec<_> = noted
            .iter()
            .enumerate()
            .map(|(writer, from)| {
                let (url, gone, from) = (served.url.clone(), Arc::clone(&gone), *from);
                std::thread::spawn(move || write(&url, writer, from, &gone))
            })
            .collect();
        // Any moment of a save: 15 to 142 ms, spread by a multiplicative step.
        std::thread::sleep(Duration::from_millis(15 + (kill * 37) % 128));
        served.process.kill().expect("killed");
        gone.store(true, Ordering::Relaxed);
        served.process.wait().expect("gone");
        let before: i64 = noted.iter().map(|n| n.revision).sum();
        noted = writers.into_iter().map(|w| w.join().expect("no panic")).collect();
        saves += noted.iter().map(|n| n.revision).sum::<i64>() - before;

        served = serve(&database);
        for (writer, known) in noted.iter_mut().enumerate() {
            let kept = get(&format!("{}/api/builds/{}/revisions/{}", served.url, known.build, known.revision));
            assert_eq!(kept["document"], document(writer, known.mark), "kill {kill}, writer {writer}");
            let newest = get(&format!("{}/api/builds/{}", served.url, known.build));
            let ahead = newest["summary"]["revision"].as_i64().expect("a revision") - known.revision;
            assert!((0..=1).contains(&ahead), "kill {kill}, writer {writer}: {ahead} ahead");
            known.revision += ahead;
            known.mark += ahead.unsigned_abs();
        }
    }
    served.process.kill().expect("killed");
    println!("{kills} kills, {saves} acknowledged saves, none lost");
    assert!(saves > 0, "the writers saved nothing");
}

/// A sheet of sixty parts that all carry one mark.
fn sheet(mark: u64) -> String {
    let lines = (0..60).map(|i| format!("pushrod,rod {i},7.{:03} in,mark {mark}\n", 600 + i));
    format!("part_kind,name,length,notes\n{}", lines.collect::<String>())
}

#[test]
fn a_sheet_of_parts_is_on_the_shelf_whole_or_not_at_all() {
    let folder = tempfile::tempdir().expect("a folder");
    let database = folder.path().join("shelf.db");
    let mut served = serve(&database);
    let mut known = 0;
    for kill in 0..6_u64 {
        let url = served.url.clone();
        let put = move |mark: u64| send("POST", &format!("{url}/api/parts/sheet"), &json!({ "text": sheet(mark) }));
        let from = known + 1;
        let writer = std::thread::spawn(move || (from..).take_while(|mark| put(*mark).is_some()).last());
        std::thread::sleep(Duration::from_millis(40 + (kill * 37) % 128));
        served.process.kill().expect("killed");
        served.process.wait().expect("gone");
        known = writer.join().expect("no panic").unwrap_or(known);

        served = serve(&database);
        let shelf = get(&format!("{}/api/parts", served.url));
        let marks: Vec<u64> = shelf.as_array().expect("a list").iter().map(|entry| mark_of(&entry["part"])).collect();
        assert!(marks.windows(2).all(|two| two[0] == two[1]), "kill {kill}: a sheet is half there: {marks:?}");
        let found = marks.first().copied().unwrap_or(0);
        assert!(found == known || found == known + 1, "kill {kill}: {found} on the shelf, {known} acknowledged");
        assert!(marks.is_empty() || marks.len() == 60);
        known = found;
    }
    served.process.kill().expect("killed");
    assert!(known > 0, "no sheet went in");
}

/// The mark a part of [`sheet`] carries.
fn mark_of(part: &Value) -> u64 {
    part["notes"].as_str().and_then(|notes| notes.strip_prefix("mark ")?.parse().ok()).expect("a mark")
}
