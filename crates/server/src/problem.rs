//! Refusals as problem details (RFC 9457): one type, one function from error kind to status.

use actix_web::error::BlockingError;
use actix_web::http::StatusCode;
use actix_web::http::header::CONTENT_TYPE;
use actix_web::{HttpResponse, ResponseError};
use serde::Serialize;
use std::fmt;
use upper_lobe_core::analysis::{Fault, Faults};
use upper_lobe_store::StoreError;
use utoipa::ToSchema;

/// A problem document.
#[derive(Debug, Clone, Serialize, ToSchema)]
pub struct Problem {
    /// Identifies the kind of problem.
    pub r#type: String,
    /// The kind in words.
    pub title: String,
    /// The HTTP status.
    pub status: u16,
    /// This occurrence in words.
    pub detail: String,
    /// Every refused value, when values were refused.
    #[serde(skip_serializing_if = "Vec::is_empty")]
    pub faults: Vec<Fault>,
    /// The newest revision, when a save was stale.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub newest_revision: Option<i64>,
}

impl Problem {
    /// A problem of `kind` with `status`.
    pub fn new(status: StatusCode, kind: &str, detail: impl Into<String>) -> Self {
        Self {
            r#type: format!("urn:upper-lobe:problem:{kind}"),
            title: kind.replace('-', " "),
            status: status.as_u16(),
            detail: detail.into(),
            faults: Vec::new(),
            newest_revision: None,
        }
    }
}

impl fmt::Display for Problem {
    fn fmt(&self, f: &mut fmt::Formatter<'_>) -> fmt::Result {
        write!(f, "{} ({}): {}", self.title, self.status, self.detail)
    }
}

impl ResponseError for Problem {
    fn status_code(&self) -> StatusCode {
        StatusCode::from_u16(self.status).unwrap_or(StatusCode::INTERNAL_SERVER_ERROR)
    }

    fn error_response(&self) -> HttpResponse {
        HttpResponse::build(self.status_code())
            .insert_header((CONTENT_TYPE, "application/problem+json"))
            .body(serde_json::to_string(self).unwrap_or_default())
    }
}

impl From<BlockingError> for Problem {
    fn from(error: BlockingError) -> Self {
        Self::new(StatusCode::INTERNAL_SERVER_ERROR, "interrupted", error.to_string())
    }
}

impl From<Faults> for Problem {
    fn from(faults: Faults) -> Self {
        let detail = faults.faults.first().map_or_else(String::new, ToString::to_string);
        Self { faults: faults.faults, ..Self::new(StatusCode::UNPROCESSABLE_ENTITY, "refused-values", detail) }
    }
}

impl From<Fault> for Problem {
    fn from(fault: Fault) -> Self {
        Faults::from(fault).into()
    }
}

impl From<StoreError> for Problem {
    fn from(error: StoreError) -> Self {
        let detail = error.to_string();
        match error {
            StoreError::NoBuild(_) | StoreError::NoRevision(..) => {
                Self::new(StatusCode::NOT_FOUND, "no-such-build", detail)
            }
            StoreError::NoPart(_) => Self::new(StatusCode::NOT_FOUND, "no-such-part", detail),
            StoreError::NameTaken(_) => Self::new(StatusCode::CONFLICT, "name-taken", detail),
            StoreError::NotDeleted(_) => Self::new(StatusCode::CONFLICT, "not-deleted", detail),
            StoreError::Full => Self::new(StatusCode::INSUFFICIENT_STORAGE, "disk-full", detail),
            StoreError::ReadOnly => Self::new(StatusCode::FORBIDDEN, "read-only", detail),
            StoreError::Stale { newest, .. } => {
                Self { newest_revision: Some(newest), ..Self::new(StatusCode::CONFLICT, "stale-save", detail) }
            }
            StoreError::Removed => Self::new(StatusCode::SERVICE_UNAVAILABLE, "database-removed", detail),
            StoreError::Damaged(..) => Self::new(StatusCode::INTERNAL_SERVER_ERROR, "damaged-document", detail),
            StoreError::Exists(_) => Self::new(StatusCode::CONFLICT, "file-exists", detail),
            StoreError::Database(_) | StoreError::Migration(_) | StoreError::File(_) => {
                tracing::error!(%detail, "the store failed");
                Self::new(StatusCode::SERVICE_UNAVAILABLE, "store-unavailable", detail)
            }
        }
    }
}
