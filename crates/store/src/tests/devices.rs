//! Devices: let in by their digest until they are shut out or their time is over; arrivals once.

use super::store;
use crate::StoreError;

#[tokio::test]
async fn a_device_is_let_in_until_it_is_shut_out_or_its_time_is_over() {
    let (_folder, store) = store().await;
    let id = store.add_device("Tablet", "readings", &[1; 32]).await.unwrap();
    assert_eq!(store.device_of(&[1; 32]).await.unwrap().unwrap().name, "Tablet");
    assert_eq!(store.device_of(&[2; 32]).await.unwrap(), None);
    store.see_device(id).await.unwrap();
    store.note_device_change(id, "saved build 1").await.unwrap();
    assert!(store.devices().await.unwrap()[0].seen_at.is_some());
    assert_eq!(store.device_changes().await.unwrap()[0].what, "saved build 1");
    for (days, is_in) in [(89, true), (91, false)] {
        let sql = "UPDATE device SET paired_at = strftime('%Y-%m-%dT%H:%M:%SZ', 'now', ?)";
        sqlx::query(sql).bind(format!("-{days} days")).execute(&store.pool).await.unwrap();
        assert_eq!(store.device_of(&[1; 32]).await.unwrap().is_some(), is_in, "{days}");
    }
    let other = store.add_device("Phone", "look", &[3; 32]).await.unwrap();
    assert!(store.revoke_device(other).await.unwrap() && !store.revoke_device(other).await.unwrap());
    assert_eq!(store.device_of(&[3; 32]).await.unwrap(), None);
    assert!(store.add_device("Twin", "look", &[3; 32]).await.is_err(), "a token is one device's");
    assert!(store.add_device("Root", "root", &[4; 32]).await.is_err(), "there is no such role");
}

#[tokio::test]
async fn what_arrives_under_a_key_arrives_once() {
    let (_folder, store) = store().await;
    let id = store.create("One", "{}").await.unwrap().id;
    assert_eq!(store.arrived("k").await.unwrap(), None);
    store.save_arrival("k", (id, 1), "One", "{\"a\":1}").await.unwrap();
    assert_eq!(store.arrived("k").await.unwrap(), Some((id, 2)));
    // Refused with its revision: neither is there.
    assert!(store.save_arrival("k", (id, 2), "One", "{\"a\":2}").await.is_err());
    assert!(matches!(store.save_arrival("l", (id, 1), "One", "{}").await, Err(StoreError::Stale { newest: 2, .. })));
    assert_eq!(store.arrived("l").await.unwrap(), None);
    assert_eq!(store.newest(id).await.unwrap().document, "{\"a\":1}");
    // A build that is deleted takes its keys along.
    store.archive(id).await.unwrap();
    store.delete(id, "One").await.unwrap();
    assert_eq!(store.arrived("k").await.unwrap(), None);
}
