//! What the shop's other builds may teach one: their newest documents. Nothing of it leaves the machine.

use crate::jobs::aside;
use crate::problem::Problem;
use upper_lobe_core::analysis::{Build, Stages, Taught, WearOf, taught_by, wear_of};
use upper_lobe_store::Store;

/// Newest documents of all builds but one that are not archived.
///
/// # Errors
/// The store's own.
pub async fn others(store: &Store, except: Option<i64>) -> Result<Vec<String>, Problem> {
    let mut documents = Vec::new();
    for listed in store.list(false).await? {
        if Some(listed.entry.id) == except {
            continue;
        }
        // One that is damaged or was put away meanwhile teaches nothing; it is told where it is opened.
        if let Ok(build) = store.newest(listed.entry.id).await {
            documents.push(build.document);
        }
    }
    Ok(documents)
}

/// What all builds but one teach of the model's constants.
///
/// # Errors
/// The store's own.
pub async fn taught(store: &Store, except: Option<i64>) -> Result<Vec<Taught>, Problem> {
    let mut documents = others(store, except).await?;
    documents.retain(|own| own.contains("\"information\""));
    aside(move || Ok(documents.iter().filter_map(|own| taught_by(&Build::read(own).ok()?)).collect())).await
}

/// Wear of builds for engines like them to be told by.
pub fn wear_in(documents: &[String], stages: &Stages) -> Vec<WearOf> {
    let wear = |text: &String| Build::read(text).map(|own| wear_of(&own, stages)).unwrap_or_default();
    documents.iter().filter(|own| own.contains("\"service\"")).flat_map(wear).collect()
}
