//! What the screen asks once: the state of the store and the trade's words.

use actix_web::{get, web};
use serde::Serialize;
use upper_lobe_core::analysis::{GLOSSARY, Term};
use upper_lobe_store::{Damage, Store, StoreError};
use utoipa::ToSchema;

/// The state of the server.
#[derive(Debug, Serialize, ToSchema)]
pub struct ServerState {
    /// Version of the application.
    pub version: String,
    /// Whether nothing can be saved.
    pub read_only: bool,
    /// What of the store is not as it should be, in sentences: documents damaged on the disk, a database that is gone.
    pub troubles: Vec<String>,
}

/// Whether saving is possible.
#[utoipa::path(responses((status = 200, body = ServerState)), tag = "about")]
#[get("/state")]
pub async fn server_state(store: web::Data<Store>, damage: web::Data<Vec<Damage>>) -> web::Json<ServerState> {
    let mut troubles: Vec<String> = damage.iter().map(Damage::to_string).collect();
    if !store.is_there() {
        troubles.push(StoreError::Removed.to_string());
    }
    web::Json(ServerState { version: env!("CARGO_PKG_VERSION").to_owned(), read_only: store.is_read_only(), troubles })
}

/// Every word of the trade in a sentence.
#[utoipa::path(responses((status = 200, body = [Term])), tag = "about")]
#[get("/glossary")]
pub async fn glossary() -> web::Json<&'static [Term]> {
    web::Json(GLOSSARY)
}
