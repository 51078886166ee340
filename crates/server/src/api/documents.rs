//! Documents against documents: what differs, and two sets of edits made into one.

use crate::problem::Problem;
use actix_web::{post, web};
use serde::{Deserialize, Serialize};
use upper_lobe_core::analysis::{Build, Conflict, Difference, Fault, Merge, adopt, differences, merge};
use utoipa::ToSchema;

/// Two documents.
#[derive(Debug, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Pair {
    /// The older text.
    pub before: String,
    /// The newer text.
    pub after: String,
}

/// Every field that differs.
#[utoipa::path(request_body = Pair, responses((status = 200, body = [Difference]), (status = 422, body = Problem)), tag = "documents")]
#[post("/differences")]
pub async fn list_differences(body: web::Json<Pair>) -> Result<web::Json<Vec<Difference>>, Problem> {
    let (before, after) = (Build::read(&body.before)?, Build::read(&body.after)?);
    Ok(web::Json(differences(before.value(), after.value())))
}

/// Two documents made from one.
#[derive(Debug, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct MergeRequest {
    /// Where both began.
    pub base: String,
    /// This tab's text.
    pub mine: String,
    /// The text saved in between.
    pub theirs: String,
    /// Conflicts that take theirs, by field.
    #[serde(default)]
    pub theirs_for: Vec<String>,
    /// Instead of merging, keep this candidate of mine beside theirs.
    #[serde(default)]
    pub keep_candidate: Option<String>,
}

/// One document out of two.
#[derive(Debug, Serialize, ToSchema)]
pub struct Merged {
    /// The merged text.
    pub document: String,
    /// Fields both changed.
    pub conflicts: Vec<Conflict>,
    /// What the saved text changed and the merged one takes over from it.
    pub taken: Vec<Difference>,
    /// Why the merged text is no build; empty when it can be saved.
    pub faults: Vec<Fault>,
}

/// Merges field by field; nothing is saved.
#[utoipa::path(request_body = MergeRequest, responses((status = 200, body = Merged), (status = 422, body = Problem)), tag = "documents")]
#[post("/merge")]
pub async fn merge_documents(body: web::Json<MergeRequest>) -> Result<web::Json<Merged>, Problem> {
    let (base, mine, theirs) = (Build::read(&body.base)?, Build::read(&body.mine)?, Build::read(&body.theirs)?);
    let merged = match &body.keep_candidate {
        None => merge(base.value(), mine.value(), theirs.value(), &body.theirs_for),
        Some(id) => {
            let unknown = || Fault::new("keep_candidate", id, "a candidate of mine");
            Merge { value: adopt(mine.value(), theirs.value(), id).ok_or_else(unknown)?, conflicts: Vec::new() }
        }
    };
    let taken = differences(mine.value(), &merged.value);
    let document = Build::text_of(&merged.value);
    let faults = Build::from_value(merged.value).err().map_or_else(Vec::new, |faults| faults.faults);
    Ok(web::Json(Merged { document, conflicts: merged.conflicts, taken, faults }))
}
