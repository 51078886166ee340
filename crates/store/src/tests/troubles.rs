//! What disks, folders and other programs do to a store.

use super::{kept, store};
use crate::{KeptBuild, Store, StoreError};
use sqlx::sqlite::{SqliteConnectOptions, SqlitePool};
use std::path::Path;

/// A cap on the pages of the file stands for the end of the disk.
async fn filled(path: &Path) -> Store {
    Store::open(path).await.unwrap().close().await;
    let capped = SqliteConnectOptions::new().filename(path).pragma("max_page_count", "30");
    Store::on(capped, 1, path).await.unwrap()
}

#[tokio::test]
async fn a_full_disk_refuses_the_save_and_after_space_is_freed_it_goes_on() {
    let folder = tempfile::tempdir().unwrap();
    let path = folder.path().join("full.db");
    let store = filled(&path).await;
    let made = store.create("one", "first").await.unwrap();
    let large = "x".repeat(400_000);
    assert!(matches!(store.save(made.id, 1, "one", &large).await, Err(StoreError::Full)));
    // Space is freed. The connection that broke off is not used again: its transaction would stand in the way.
    store.pool.set_connect_options(SqliteConnectOptions::new().filename(&path));
    assert_eq!(store.newest(made.id).await.unwrap().document, "first");
    assert_eq!(store.save(made.id, 1, "one", &large).await.unwrap().revision, 2);
    assert_eq!(store.newest(made.id).await.unwrap().document, large);
}

#[tokio::test]
async fn a_change_that_is_given_up_in_the_middle_leaves_nothing_behind() {
    let (_folder, store) = store().await;
    let made = store.create("one", "first").await.unwrap();
    let mut change = store.change().await.unwrap();
    sqlx::query("DELETE FROM build").execute(&mut *change).await.unwrap();
    drop(change);
    assert_eq!(store.save(made.id, 1, "one", "second").await.unwrap().revision, 2);
}

#[tokio::test]
async fn a_file_without_its_journals_folder_is_read() {
    let (folder, store) = store().await;
    let made = store.create("one", "first").await.unwrap();
    let path = folder.path().join("test.db");
    // With a journal that holds what the file does not yet: a copy of both, as a closed folder would have them.
    let elsewhere = tempfile::tempdir().unwrap();
    let left = elsewhere.path().join("left.db");
    std::fs::copy(&path, &left).unwrap();
    std::fs::copy(folder.path().join("test.db-wal"), elsewhere.path().join("left.db-wal")).unwrap();
    let reading = Store::open_for_reading(&left).await.unwrap();
    assert_eq!(reading.newest(made.id).await.unwrap().document, "first");
    assert!(reading.is_read_only());
    // Without one: the file as it lies.
    store.close().await;
    let reading = Store::open_for_reading(&path).await.unwrap();
    assert_eq!(reading.newest(made.id).await.unwrap().document, "first");
}

#[tokio::test]
async fn a_file_that_sqlite_opened_for_reading_is_not_taken_for_one_to_write() {
    let (folder, store) = store().await;
    store.close().await;
    let path = folder.path().join("test.db");
    let pool = SqlitePool::connect_with(SqliteConnectOptions::new().filename(&path).read_only(true)).await.unwrap();
    let opened = Store { pool, read_only: false, home: store.home.clone() }.probed().await;
    assert!(opened.is_err_and(|error| error.may_be_readable()));
    let again = Store::open(&path).await.unwrap();
    assert!(again.probed().await.is_ok());
}

#[tokio::test]
async fn a_removed_or_replaced_database_is_noticed() {
    let (folder, store) = store().await;
    let made = store.create("one", "first").await.unwrap();
    let path = folder.path().join("test.db");
    std::fs::rename(&path, folder.path().join("away.db")).unwrap();
    assert!(matches!(store.save(made.id, 1, "one", "lost").await, Err(StoreError::Removed)));
    assert!(!store.is_there());
    std::fs::write(&path, "another file").unwrap();
    assert!(matches!(store.create("two", "lost").await, Err(StoreError::Removed)));
    std::fs::rename(folder.path().join("away.db"), &path).unwrap();
    assert_eq!(store.save(made.id, 1, "one", "kept").await.unwrap().revision, 2);
}

#[tokio::test]
async fn a_damaged_document_is_named_and_the_rest_opens() {
    let (_folder, store) = store().await;
    let one = store.create("one", "first").await.unwrap();
    let two = store.create("two", "first").await.unwrap();
    store.save(one.id, 1, "one", "second").await.unwrap();
    assert_eq!(store.check().await.unwrap(), vec![]);
    let spoil = sqlx::query("UPDATE revision SET document = 'secomd' WHERE build_id = ? AND number = 2");
    spoil.bind(one.id).execute(&store.pool).await.unwrap();
    assert!(matches!(store.newest(one.id).await, Err(StoreError::Damaged(_, 2))));
    assert_eq!(store.revision(one.id, 1).await.unwrap().document, "first");
    assert_eq!(store.newest(two.id).await.unwrap().document, "first");
    let found = store.check().await.unwrap();
    assert_eq!(
        found.iter().map(|damage| (damage.build, damage.revision)).collect::<Vec<_>>(),
        [(Some(one.id), Some(2))]
    );
    assert_eq!(store.list(false).await.unwrap().len(), 2);
}

#[tokio::test]
async fn revisions_from_before_digests_get_theirs() {
    let (folder, store) = store().await;
    let made = store.create("one", "first").await.unwrap();
    sqlx::query("UPDATE revision SET digest = NULL").execute(&store.pool).await.unwrap();
    store.close().await;
    let again = Store::open(&folder.path().join("test.db")).await.unwrap();
    assert_eq!(again.check().await.unwrap(), vec![]);
    let kept: String = sqlx::query_scalar("SELECT digest FROM revision").fetch_one(&again.pool).await.unwrap();
    // FIPS 180-4's algorithm; the digest of this text by another program.
    assert_eq!(kept, "a7937b64b8caa58f03721bb6bacf5c78cb235febe0e70b1b84cd99541461a08e");
    assert_eq!(again.newest(made.id).await.unwrap().document, "first");
}

async fn everything(store: &Store) -> (Vec<KeptBuild>, Vec<crate::KeptPart>) {
    (store.everything().await.unwrap(), store.parts().await.unwrap())
}

#[tokio::test]
async fn a_backup_made_while_saving_goes_on_comes_back_whole() {
    let (folder, store) = store().await;
    let made = store.create("one", "first").await.unwrap();
    store.save(made.id, 1, "one", "second").await.unwrap();
    store.archive(made.id).await.unwrap();
    store.put_parts(&[kept("Dual 280", "{}")]).await.unwrap();
    let before = everything(&store).await;
    let file = folder.path().join("backup.db");
    store.backup(&file).await.unwrap();
    assert!(matches!(store.backup(&file).await, Err(StoreError::Exists(_))));
    store.create("two", "later").await.unwrap();
    store.remove_part("spring", "Dual 280").await.unwrap();
    let copy = Store::open_for_reading(&file).await.unwrap();
    let (builds, parts) = everything(&copy).await;
    store.replace_all(&builds, &parts).await.unwrap();
    assert_eq!(everything(&store).await, before);
}

#[tokio::test]
async fn what_is_added_stands_beside_what_is_there() {
    let (_folder, store) = store().await;
    store.create("one", "first").await.unwrap();
    let (builds, parts) = everything(&store).await;
    store.add_all(&builds, &parts).await.unwrap();
    let all = store.everything().await.unwrap();
    assert_eq!(all.len(), 2);
    assert_eq!((&all[0].revisions, all[0].id + 1), (&all[1].revisions, all[1].id));
}
