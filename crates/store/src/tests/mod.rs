//! Revisions, staleness, archive and what a full or read-only disk does.

mod devices;
mod troubles;

use super::*;
use sqlx::sqlite::{SqliteConnectOptions, SqlitePoolOptions};

async fn store() -> (tempfile::TempDir, Store) {
    let folder = tempfile::tempdir().unwrap();
    let store = Store::open(&folder.path().join("test.db")).await.unwrap();
    (folder, store)
}

#[tokio::test]
async fn a_saved_text_comes_back_as_saved() {
    let (folder, store) = store().await;
    let made = store.create("one", "{ \"ratio\": 1.60 }").await.unwrap();
    let saved = store.save(made.id, 1, "one, again", "{\"ratio\":1.65}").await.unwrap();
    assert_eq!((saved.revision, saved.name.as_str()), (2, "one, again"));
    store.close().await;
    let again = Store::open(&folder.path().join("test.db")).await.unwrap();
    let found = again.newest(made.id).await.unwrap();
    assert_eq!((found.document.as_str(), found.entry.revision), ("{\"ratio\":1.65}", 2));
}

#[tokio::test]
async fn a_stale_save_is_refused_and_writes_nothing() {
    let (_folder, store) = store().await;
    let made = store.create("one", "first").await.unwrap();
    store.save(made.id, 1, "one", "second").await.unwrap();
    let refused = store.save(made.id, 1, "one", "lost?").await.unwrap_err();
    assert!(matches!(refused, StoreError::Stale { base: 1, newest: 2, .. }));
    assert_eq!(store.newest(made.id).await.unwrap().document, "second");
}

#[tokio::test]
async fn of_many_saves_from_one_revision_exactly_one_wins() {
    let (_folder, store) = store().await;
    let made = store.create("one", "first").await.unwrap();
    let saves = (0..8).map(|i| {
        let store = store.clone();
        tokio::spawn(async move { store.save(made.id, 1, "one", &format!("text {i}")).await })
    });
    let mut won = 0;
    for save in saves.collect::<Vec<_>>() {
        won += i32::from(save.await.unwrap().is_ok());
    }
    assert_eq!(won, 1);
    assert_eq!(store.newest(made.id).await.unwrap().entry.revision, 2);
}

#[tokio::test]
async fn what_is_not_there_is_said_to_be_not_there() {
    let (_folder, store) = store().await;
    assert!(matches!(store.newest(7).await, Err(StoreError::NoBuild(7))));
    assert!(matches!(store.save(7, 1, "x", "y").await, Err(StoreError::NoBuild(7))));
    assert_eq!(store.list(false).await.unwrap(), vec![]);
}

#[tokio::test]
async fn every_revision_is_kept_and_can_be_read_again() {
    let (_folder, store) = store().await;
    let made = store.create("one", "first").await.unwrap();
    store.save(made.id, 1, "two", "second").await.unwrap();
    let history: Vec<_> = store.history(made.id).await.unwrap().into_iter().map(|e| (e.revision, e.name)).collect();
    assert_eq!(history, [(2, "two".to_owned()), (1, "one".to_owned())]);
    assert_eq!(store.revision(made.id, 1).await.unwrap().document, "first");
    assert!(matches!(store.revision(made.id, 3).await, Err(StoreError::NoRevision(_, 3))));
    assert!(matches!(store.history(9).await, Err(StoreError::NoBuild(9))));
}

#[tokio::test]
async fn the_list_says_what_the_newest_document_is_about_whatever_it_holds() {
    let (_folder, store) = store().await;
    let made = store.create("one", r#"{"use":"tow","engine":{"bore":"4 in"}}"#).await.unwrap();
    let newer = r#"{"use":"strip","engine":{"layout":"V8","bore":"4.06 in","stroke":95}}"#;
    store.save(made.id, 1, "one", newer).await.unwrap();
    store.create("rubbish", "no JSON").await.unwrap();
    let listed = store.list(false).await.unwrap();
    let about = |i: usize| {
        let ListedBuild { used_for, layout, bore, stroke, .. } = listed[i].clone();
        [used_for, layout, bore, stroke].map(|text| text.unwrap_or_default())
    };
    assert_eq!(
        (about(0), about(1)),
        (["", "", "", ""].map(str::to_owned), ["strip", "V8", "4.06 in", "95"].map(str::to_owned))
    );
}

#[tokio::test]
async fn archived_builds_leave_the_list_and_come_back_whole() {
    let (_folder, store) = store().await;
    let made = store.create("one", "first").await.unwrap();
    store.archive(made.id).await.unwrap();
    assert_eq!((store.list(false).await.unwrap().len(), store.list(true).await.unwrap().len()), (0, 1));
    store.restore(made.id).await.unwrap();
    assert_eq!(store.list(false).await.unwrap()[0].entry, made);
    assert!(matches!(store.archive(9).await, Err(StoreError::NoBuild(9))));
}

#[tokio::test]
async fn only_an_archived_build_is_deleted_and_only_by_its_name() {
    let (_folder, store) = store().await;
    let made = store.create("one", "first").await.unwrap();
    assert!(matches!(store.delete(made.id, "one").await, Err(StoreError::NotDeleted(_))));
    store.archive(made.id).await.unwrap();
    assert!(matches!(store.delete(made.id, "on").await, Err(StoreError::NotDeleted(_))));
    assert_eq!(store.newest(made.id).await.unwrap().document, "first");
    store.delete(made.id, "one").await.unwrap();
    assert!(matches!(store.newest(made.id).await, Err(StoreError::NoBuild(_))));
}

#[tokio::test]
async fn a_store_for_reading_reads_and_refuses_to_write() {
    let (folder, store) = store().await;
    let made = store.create("one", "first").await.unwrap();
    store.close().await;
    let reading = Store::open_for_reading(&folder.path().join("test.db")).await.unwrap();
    assert!(reading.is_read_only());
    assert_eq!(reading.newest(made.id).await.unwrap().document, "first");
    assert!(matches!(reading.save(made.id, 1, "one", "second").await, Err(StoreError::ReadOnly)));
    assert!(matches!(reading.create("two", "x").await, Err(StoreError::ReadOnly)));
    assert!(matches!(reading.archive(made.id).await, Err(StoreError::ReadOnly)));
}

fn kept(name: &str, content: &str) -> KeptPart {
    KeptPart { kind: "spring".to_owned(), name: name.to_owned(), content: content.to_owned() }
}

#[tokio::test]
async fn parts_are_put_by_name_and_told_apart() {
    let (_folder, store) = store().await;
    let first = store.put_parts(&[kept("one", "1"), kept("two", "2")]).await.unwrap();
    assert_eq!(first, Put { added: 2, changed: 0, unchanged: 0 });
    let second = store.put_parts(&[kept("one", "1"), kept("two", "2, dearer"), kept("three", "3")]).await.unwrap();
    assert_eq!(second, Put { added: 1, changed: 1, unchanged: 1 });
    let names: Vec<_> = store.parts().await.unwrap().into_iter().map(|part| (part.name, part.content)).collect();
    let text = |name: &str, content: &str| (name.to_owned(), content.to_owned());
    assert_eq!(names, [text("one", "1"), text("three", "3"), text("two", "2, dearer")]);
}

#[tokio::test]
async fn a_new_part_wants_a_free_name_and_an_old_one_can_go() {
    let (_folder, store) = store().await;
    store.add_part(&kept("one", "1")).await.unwrap();
    assert!(
        matches!(store.add_part(&kept("one", "2")).await.unwrap_err(), StoreError::NameTaken(name) if name == "one")
    );
    assert_eq!(store.parts().await.unwrap()[0].content, "1");
    store.add_part(&KeptPart { kind: "valve".to_owned(), ..kept("one", "v") }).await.unwrap();
    store.remove_part("spring", "one").await.unwrap();
    assert!(matches!(store.remove_part("spring", "one").await.unwrap_err(), StoreError::NoPart(_)));
    assert_eq!(store.parts().await.unwrap().len(), 1);
}

#[tokio::test]
async fn a_shelf_that_may_only_be_read_stays_as_it_is() {
    let (folder, store) = store().await;
    store.add_part(&kept("one", "1")).await.unwrap();
    store.close().await;
    let store = Store::open_for_reading(&folder.path().join("test.db")).await.unwrap();
    assert!(matches!(store.put_parts(&[kept("two", "2")]).await.unwrap_err(), StoreError::ReadOnly));
    assert!(matches!(store.remove_part("spring", "one").await.unwrap_err(), StoreError::ReadOnly));
    assert_eq!(store.parts().await.unwrap().len(), 1);
}

#[tokio::test]
async fn a_database_from_before_the_shelf_is_brought_up_to_date() {
    let folder = tempfile::tempdir().unwrap();
    let path = folder.path().join("old.db");
    let options = SqliteConnectOptions::new().filename(&path).create_if_missing(true);
    let pool = SqlitePoolOptions::new().connect_with(options).await.unwrap();
    crate::migrations::migrator().run_to(1, &pool).await.unwrap();
    sqlx::raw_sql("INSERT INTO build DEFAULT VALUES; INSERT INTO revision (build_id, number, name, document) VALUES (1, 1, 'old', 'text')")
        .execute(&pool)
        .await
        .unwrap();
    pool.close().await;
    let store = Store::open(&path).await.unwrap();
    assert_eq!(store.newest(1).await.unwrap().document, "text");
    assert_eq!(store.parts().await.unwrap(), []);
}

#[tokio::test]
async fn points_of_this_program_come_back_and_those_of_another_are_gone() {
    let folder = tempfile::tempdir().unwrap();
    let store = Store::open(&folder.path().join("points.db")).await.unwrap();
    let point = |key: u8, byte: u8| crate::KeptPoint { key: [key; 16], columns: vec![byte; 3] };
    store.put_points("this", &[point(1, 1), point(2, 2)]).await.unwrap();
    store.put_points("this", &[point(1, 9)]).await.unwrap();
    assert_eq!(store.points("this").await.unwrap(), [point(2, 2), point(1, 9)]);
    assert_eq!(store.points("other").await.unwrap(), []);
    assert_eq!(store.points("this").await.unwrap(), []);
}

/// SQLx refuses a database whose migrations read otherwise now, were it by a comment: a change is a new migration.
#[test]
fn a_migration_that_was_applied_somewhere_reads_as_it_did() {
    let kept = ["ccea232e", "393ee89b", "59218a60", "d78e04cc", "6ca0358d", "de7026b4", "4c9b0531"];
    let steps = crate::migrations::migrator();
    assert_eq!(steps.iter().count(), kept.len());
    for (step, begins) in steps.iter().zip(kept) {
        assert!(crate::digest(step.sql.as_str()).starts_with(begins), "{}", step.sql.as_str());
    }
}

#[tokio::test]
async fn instruments_are_kept_by_name_replaced_and_forgotten() {
    let (_folder, store) = store().await;
    let own = |name: &str, content: &str| KeptInstrument { name: name.into(), content: content.into() };
    store.put_instrument(&own("Wheel", "one")).await.unwrap();
    store.put_instrument(&own("Dial", "two")).await.unwrap();
    store.put_instrument(&own("Wheel", "three")).await.unwrap();
    assert_eq!(store.instruments().await.unwrap(), [own("Dial", "two"), own("Wheel", "three")]);
    assert!(store.remove_instrument("Dial").await.unwrap() && !store.remove_instrument("Dial").await.unwrap());
    assert_eq!(store.instruments().await.unwrap().len(), 1);
}
