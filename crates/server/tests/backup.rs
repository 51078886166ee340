//! Backups and archives by the command line: everything out, everything back, and nothing taken for whole that is not.

use crate::served::{Served, get, serve};
use serde_json::{Value, json};
use sha2::{Digest, Sha256};
use std::io::Read;
use std::path::{Path, PathBuf};
use std::process::{Command, Output};

/// Runs a command on a file and a database.
fn run(command: &str, file: &Path, database: &Path) -> Output {
    Command::new(env!("CARGO_BIN_EXE_upper-lobe"))
        .arg(command)
        .arg(file)
        .arg("--database")
        .arg(database)
        .output()
        .expect("it ends")
}

fn said(output: &Output) -> String {
    format!("{}{}", String::from_utf8_lossy(&output.stdout), String::from_utf8_lossy(&output.stderr))
}

fn done(output: &Output) -> String {
    assert!(output.status.success(), "{}", said(output));
    said(output)
}

/// A folder with a database that holds the demo.
fn demo() -> (tempfile::TempDir, PathBuf) {
    let folder = tempfile::tempdir().expect("a folder");
    let database = folder.path().join("shop.db");
    let loaded = Command::new(env!("CARGO_BIN_EXE_upper-lobe"))
        .args(["demo", "--database"])
        .arg(&database)
        .output()
        .expect("it ends");
    done(&loaded);
    (folder, database)
}

/// Names and documents of every build in use.
fn builds(url: &str) -> Vec<(String, String)> {
    let list = get(&format!("{url}/api/builds"));
    let open = |entry: &Value| {
        let build = get(&format!("{url}/api/builds/{}", entry["id"]));
        (entry["name"].as_str().unwrap().to_owned(), build["document"].as_str().unwrap().to_owned())
    };
    let mut found: Vec<_> = list.as_array().unwrap().iter().map(open).collect();
    found.sort();
    found
}

fn post(url: &str, body: &Value) -> Value {
    let answer = ureq::post(url).set("content-type", "application/json").send_string(&body.to_string());
    serde_json::from_str(&answer.expect("it is taken").into_string().unwrap()).unwrap()
}

fn stop(mut served: Served) {
    served.process.kill().expect("it stops");
    served.process.wait().expect("it ends");
}

#[test]
fn a_backup_made_while_it_is_served_brings_back_what_was_changed_and_keeps_the_change_aside() {
    let (folder, database) = demo();
    let served = serve(&database);
    let before = builds(&served.url);
    assert_eq!(before.len(), 3);
    let copy = folder.path().join("copy.db");
    assert!(done(&run("backup", &copy, &database)).contains("3 builds and the shelf"));
    post(&format!("{}/api/builds/blank", served.url), &json!({ "name": "made after the backup" }));
    assert_eq!(builds(&served.url).len(), 4);
    stop(served);

    assert!(done(&run("restore", &copy, &database)).contains("3 builds and "));
    let served = serve(&database);
    assert_eq!(builds(&served.url), before);
    stop(served);
    let aside = folder.path().join("shop.before-restore-1.db");
    let served = serve(&aside);
    assert!(builds(&served.url).iter().any(|(name, _)| name == "made after the backup"));
    stop(served);
}

#[test]
fn an_archive_is_open_to_common_tools_and_fills_another_database() {
    let (folder, database) = demo();
    let file = folder.path().join("all.zip");
    assert!(done(&run("export", &file, &database)).contains("3 builds"));
    let mut zip = zip::ZipArchive::new(std::fs::File::open(&file).unwrap()).unwrap();
    let mut text = |name: &str| {
        let mut text = String::new();
        zip.by_name(name).unwrap_or_else(|_| panic!("{name}")).read_to_string(&mut text).unwrap();
        text
    };
    let contents: Value = serde_json::from_str(&text("contents.json")).unwrap();
    let listed = contents["builds"].as_array().unwrap();
    assert_eq!(listed.len(), 3);
    for revision in listed.iter().flat_map(|build| build["revisions"].as_array().unwrap()) {
        let document = text(revision["file"].as_str().unwrap());
        let digest: String = Sha256::digest(document.as_bytes()).iter().map(|byte| format!("{byte:02x}")).collect();
        assert_eq!(revision["sha256"], digest);
        let document: Value = serde_json::from_str(&document).unwrap();
        assert_eq!(document["name"], revision["name"]);
    }
    let sheet = text("shelf.csv");
    assert!(sheet.starts_with("part_kind,name,") && sheet.lines().count() > 10, "{sheet}");

    let other = folder.path().join("other.db");
    assert!(done(&run("import", &file, &other)).contains("3 builds added"));
    let (one, two) = (serve(&database), serve(&other));
    assert_eq!(builds(&one.url), builds(&two.url));
    assert_eq!(get(&format!("{}/api/parts", one.url)), get(&format!("{}/api/parts", two.url)));
    stop(one);
    stop(two);
}

#[test]
fn what_is_there_is_never_written_over_and_what_is_not_there_never_copied() {
    let (folder, database) = demo();
    let taken = folder.path().join("taken");
    std::fs::write(&taken, "something dear").unwrap();
    for command in ["backup", "export"] {
        let output = run(command, &taken, &database);
        assert!(!output.status.success(), "{command}: {}", said(&output));
        assert_eq!(std::fs::read_to_string(&taken).unwrap(), "something dear");
        let nowhere = folder.path().join("nowhere.db");
        let output = run(command, &folder.path().join("new"), &nowhere);
        assert!(!output.status.success() && said(&output).contains("there is no database"), "{}", said(&output));
        assert!(!nowhere.exists() && !folder.path().join("new").exists());
    }
    for command in ["restore", "import"] {
        let output = run(command, &taken, &database);
        assert!(!output.status.success(), "{command} takes a text file");
    }
    let served = serve(&database);
    assert_eq!(builds(&served.url).len(), 3);
    stop(served);
}

/// Changes a letter of a document where it lies in the file, as a failing disk does.
fn damage(database: &Path, letters: &[u8], instead: &[u8]) {
    let mut bytes = std::fs::read(database).unwrap();
    let place = bytes.windows(letters.len()).position(|window| window == letters).expect("it stands there");
    bytes[place..place + instead.len()].copy_from_slice(instead);
    std::fs::write(database, bytes).unwrap();
}

#[test]
fn damage_is_named_the_rest_opens_and_no_backup_of_it_is_put_back() {
    let (folder, database) = demo();
    let copy = folder.path().join("copy.db");
    done(&run("backup", &copy, &database));
    damage(&copy, b"pulls a horse trailer", b"pulls a mouse");
    let refused = run("restore", &copy, &database);
    assert!(!refused.status.success() && said(&refused).contains("nothing was changed"), "{}", said(&refused));
    let served = serve(&copy);
    let state = get(&format!("{}/api/state", served.url));
    let troubles = state["troubles"].to_string();
    assert!(troubles.contains("Tollgate 388 hauler"), "{troubles}");
    let list = get(&format!("{}/api/builds", served.url));
    let opened = list.as_array().unwrap().iter().filter(|entry| {
        let answer = ureq::get(&format!("{}/api/builds/{}", served.url, entry["id"])).call();
        assert_eq!(answer.is_ok(), entry["name"] != "Tollgate 388 hauler", "{entry}");
        answer.is_ok()
    });
    assert_eq!(opened.count(), 2);
    stop(served);
}

#[test]
fn what_takes_seconds_on_the_screen_is_a_command_too() {
    const HAULER: &str = include_str!("../../../demo/tollgate-388-hauler.json");
    let folder = tempfile::tempdir().expect("a folder");
    let file = folder.path().join("build.json");
    let command = |name: &str, text: &str| {
        std::fs::write(&file, text).unwrap();
        Command::new(env!("CARGO_BIN_EXE_upper-lobe")).arg(name).arg(&file).output().expect("it ends")
    };
    let json = |output: &Output| -> Value { serde_json::from_slice(&output.stdout).expect("JSON") };
    let without_pull = {
        let mut value: Value = serde_json::from_str(HAULER).unwrap();
        value.as_object_mut().unwrap().remove("pull");
        value.to_string()
    };
    let lacking = command("calibrate", &without_pull);
    assert_eq!(lacking.status.code(), Some(2));
    assert!(json(&lacking)["needs"].to_string().contains("pull"), "{}", said(&lacking));
    let refused = command("sensitivity", &HAULER.replace("\"4.060 in\"", "\"4.060\""));
    assert_eq!(refused.status.code(), Some(2));
    assert_eq!(json(&refused)["faults"][0]["field"], "engine.bore");
    let effects = json(&command("sensitivity", HAULER));
    let effects = effects.as_array().expect("a list");
    assert_eq!(effects.len(), 10);
    let of = |id: &str| effects.iter().find(|effect| effect["id"] == id).unwrap_or_else(|| panic!("{id}"));
    // Half a point of compression helps everywhere (Otto's efficiency rises with it).
    assert!(of("compression")["average_torque"].as_f64().unwrap() > 0.0, "{effects:?}");
}
