//! What an owner knows of the engine before a build begins.

use serde::Deserialize;

/// A field whose value is known, as typed.
#[derive(Debug, Clone, PartialEq, Eq, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(deny_unknown_fields)]
pub struct Known {
    /// Path of the field.
    pub field: String,
    /// As typed; empty leaves the family's.
    pub text: String,
}
