//! What a device may do.

use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

/// What a device may do, the least first.
#[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Role {
    /// Nothing but looking.
    Look,
    /// Readings and signatures of a build, and looking at everything.
    Readings,
    /// As the main screen.
    Everything,
}

/// Parts of a document that readings go into.
const OF_READINGS: [&str; 2] = ["bench", "assembly"];

impl Role {
    /// Its word, as it is kept.
    pub const fn word(self) -> &'static str {
        match self {
            Self::Everything => "everything",
            Self::Readings => "readings",
            Self::Look => "look",
        }
    }

    /// The role of that word.
    pub fn from_word(word: &str) -> Option<Self> {
        [Self::Everything, Self::Readings, Self::Look].into_iter().find(|role| role.word() == word)
    }

    /// Whether it may save a document of which these fields differ from the one that is kept.
    pub fn may_change<'a>(self, mut fields: impl Iterator<Item = &'a str>) -> bool {
        let is_reading = |field: &str| {
            OF_READINGS
                .iter()
                .any(|own| field == *own || field.strip_prefix(own).is_some_and(|rest| rest.starts_with(['[', '.'])))
        };
        match self {
            Self::Everything => true,
            Self::Readings => fields.all(is_reading),
            Self::Look => false,
        }
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn readings_change_nothing_but_readings() {
        let may = |role: Role, fields: &[&str]| role.may_change(fields.iter().copied());
        assert!(may(Role::Readings, &["bench", "bench[2].readings", "assembly[0].by"]));
        assert!(!may(Role::Readings, &["bench", "engine.bore"]));
        assert!(!may(Role::Readings, &["benches"]));
        assert!(may(Role::Everything, &["engine.bore"]) && !may(Role::Look, &["bench"]));
        assert_eq!(Role::from_word("readings"), Some(Role::Readings));
        assert_eq!(Role::from_word("root"), None);
    }
}
