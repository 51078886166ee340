//! A search goes on where it was when the server is killed in the middle of it.

use crate::served::{Served, serve};
use serde_json::{Value, json};
use sha2::{Digest, Sha256};
use std::collections::HashSet;
use std::io::{BufRead, BufReader};
use std::path::Path;
use std::time::{Duration, Instant};
use upper_lobe_store::Store;

/// The tow build of one cylinder: nobody says how the cylinders are joined, and a curve takes a fraction.
fn request() -> String {
    let mut document: Value =
        serde_json::from_str(include_str!("../../../demo/tollgate-388-hauler.json")).expect("a document");
    document["engine"].as_object_mut().expect("an engine").remove("firing_order");
    json!({ "document": document.to_string(), "setup": { "start": "timing", "evaluations": 2 } }).to_string()
}

/// The lines of a search until `enough` says so, or to its end.
fn search(served: &Served, enough: impl Fn(&Value) -> bool) -> Option<Value> {
    let asked = ureq::post(&format!("{}/api/search", served.url)).set("content-type", "application/json");
    let answer = asked.send_string(&request()).expect("the server answers");
    let lines = BufReader::new(answer.into_reader()).lines();
    let mut lines = lines.map_while(Result::ok).filter_map(|line| serde_json::from_str::<Value>(&line).ok());
    lines.find(|line| line["state"] == "done" || enough(line))
}

/// Keys of the points that this program keeps in a database.
fn kept(database: &Path) -> HashSet<[u8; 16]> {
    let own = std::fs::read(env!("CARGO_BIN_EXE_upper-lobe")).expect("the program reads itself");
    let program: String = Sha256::digest(own).iter().map(|byte| format!("{byte:02x}")).collect();
    let points = actix_web::rt::System::new().block_on(async {
        let store = Store::open_for_reading(database).await.expect("a database");
        let points = store.points(&program).await.expect("points");
        store.close().await;
        points
    });
    points.into_iter().map(|point| point.key).collect()
}

#[test]
fn a_search_that_was_killed_goes_on_to_the_same_answer_and_computes_nothing_else() {
    let folder = tempfile::tempdir().expect("a folder");
    let whole = folder.path().join("whole.db");
    let mut served = serve(&whole);
    let wanted = search(&served, |_| false).expect("an answer");
    served.process.kill().expect("killed");
    served.process.wait().expect("gone");

    let database = folder.path().join("killed.db");
    let mut served = serve(&database);
    // What is told later tells that earlier points are in the database.
    search(&served, |line| line["doing"].as_str().is_some_and(|doing| doing.starts_with("drafting")));
    served.process.kill().expect("killed");
    served.process.wait().expect("gone");
    let before = kept(&database);
    assert!(!before.is_empty(), "nothing was kept");

    let mut served = serve(&database);
    let found = search(&served, |_| false).expect("an answer");
    assert_eq!(found["report"], wanted["report"]);
    let whole = kept(&whole);
    let after = in_the_end(&database, |after| after.is_superset(&whole));
    served.process.kill().expect("killed");
    served.process.wait().expect("gone");
    assert!(before.is_subset(&after) && before.len() < after.len(), "{} and {}", before.len(), after.len());
    assert!(after.is_superset(&whole), "points of the whole search are missing");
}

/// What a running server keeps once `enough` says so, or after long enough: points go to the database some tenths of a second
/// after they came.
fn in_the_end(database: &Path, enough: impl Fn(&HashSet<[u8; 16]>) -> bool) -> HashSet<[u8; 16]> {
    let began = Instant::now();
    loop {
        let now = kept(database);
        if enough(&now) || began.elapsed() > Duration::from_secs(60) {
            return now;
        }
        std::thread::sleep(Duration::from_millis(50));
    }
}
