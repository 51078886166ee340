//! What the shop's other builds may teach one, read from their newest revisions, each of them once. Nothing of it leaves the machine.

use crate::jobs::aside;
use crate::problem::Problem;
use quick_cache::sync::Cache;
use std::sync::Arc;
use upper_lobe_core::analysis::{Build, Stages, Taught, WearOf, taught_by, wear_of};
use upper_lobe_store::{BuildEntry, Store};

/// Builds whose lessons are kept; those used least make room.
const KEPT: usize = 1024;

/// Number of a build, its revision, and when that was saved: a number may come back once its build is deleted.
type Kept = (i64, i64, String);

/// What a build teaches others.
#[derive(Debug, Default)]
struct Lesson {
    /// The model's constants.
    taught: Option<Taught>,
    /// How it wears.
    wear: Vec<WearOf>,
}

impl Lesson {
    /// Of a document; one that cannot be read teaches nothing.
    fn of(text: &str, stages: &Stages) -> Self {
        let (has_fit, has_log) = (text.contains("\"information\""), text.contains("\"service\""));
        if !has_fit && !has_log {
            return Self::default();
        }
        Build::read(text)
            .map_or_else(|_| Self::default(), |build| Self { taught: taught_by(&build), wear: wear_of(&build, stages) })
    }
}

/// Lessons of every build, by the revision they were read from.
#[derive(Debug)]
pub struct Lessons(Cache<Kept, Arc<Lesson>>);

impl Default for Lessons {
    fn default() -> Self {
        Self(Cache::new(KEPT))
    }
}

impl Lessons {
    /// What all builds that are not archived, but one, teach of the model's constants.
    ///
    /// # Errors
    /// The store's own.
    pub async fn taught(
        &self,
        store: &Store,
        except: Option<i64>,
        stages: &Arc<Stages>,
    ) -> Result<Vec<Taught>, Problem> {
        Ok(self.others(store, except, stages).await?.iter().filter_map(|own| own.taught.clone()).collect())
    }

    /// How all builds that are not archived, but one, wear.
    ///
    /// # Errors
    /// The store's own.
    pub async fn wear(&self, store: &Store, except: Option<i64>, stages: &Arc<Stages>) -> Result<Vec<WearOf>, Problem> {
        Ok(self.others(store, except, stages).await?.iter().flat_map(|own| own.wear.clone()).collect())
    }

    async fn others(
        &self,
        store: &Store,
        except: Option<i64>,
        stages: &Arc<Stages>,
    ) -> Result<Vec<Arc<Lesson>>, Problem> {
        let mut lessons = Vec::new();
        for listed in store.list(false).await?.into_iter().filter(|own| Some(own.entry.id) != except) {
            lessons.extend(self.of(store, listed.entry, stages).await);
        }
        Ok(lessons)
    }

    /// Of one build. One that is damaged or was put away meanwhile teaches nothing; it is told where it is opened.
    async fn of(&self, store: &Store, listed: BuildEntry, stages: &Arc<Stages>) -> Option<Arc<Lesson>> {
        if let Some(kept) = self.0.get(&key(&listed)) {
            return Some(kept);
        }
        let stored = store.newest(listed.id).await.ok()?;
        let (document, stages) = (stored.document, Arc::clone(stages));
        let lesson = Arc::new(aside(move || Ok(Lesson::of(&document, &stages))).await.ok()?);
        self.0.insert(key(&stored.entry), Arc::clone(&lesson));
        Some(lesson)
    }
}

fn key(entry: &BuildEntry) -> Kept {
    (entry.id, entry.revision, entry.saved_at.clone())
}
