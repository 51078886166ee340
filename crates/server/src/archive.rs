//! Everything in one open archive: a ZIP file with the builds as JSON, revision by revision, the shelf as CSV, and a list
//! of both with digests. Anybody can take it apart with common tools.

use anyhow::{Context, bail};
use serde::{Deserialize, Serialize};
use std::io::{Cursor, Read, Write};
use upper_lobe_core::analysis::{Build, ShelfPart, UnitSystem, read_sheet, write_sheet};
use upper_lobe_store::{KeptBuild, KeptRevision, digest};
use zip::write::SimpleFileOptions;
use zip::{ZipArchive, ZipWriter};

const FORMAT: &str = "upper-lobe-archive";
const VERSION: u32 = 1;
const CONTENTS: &str = "contents.json";
const SHELF: &str = "shelf.csv";

/// Largest file in an archive that is read: more than any document or shelf may have.
const MOST_BYTES: u64 = 64 * 1024 * 1024;

/// The list of what is in an archive.
#[derive(Debug, Serialize, Deserialize)]
#[serde(deny_unknown_fields)]
struct Contents {
    format: String,
    version: u32,
    builds: Vec<ListedBuild>,
}

#[derive(Debug, Serialize, Deserialize)]
#[serde(deny_unknown_fields)]
struct ListedBuild {
    id: i64,
    archived_at: Option<String>,
    revisions: Vec<ListedRevision>,
}

#[derive(Debug, Serialize, Deserialize)]
#[serde(deny_unknown_fields)]
struct ListedRevision {
    file: String,
    number: i64,
    name: String,
    saved_at: String,
    sha256: String,
}

/// What an archive holds.
#[derive(Debug, PartialEq)]
pub struct Everything {
    /// Builds with their revisions, oldest first.
    pub builds: Vec<KeptBuild>,
    /// The shelf.
    pub parts: Vec<ShelfPart>,
}

/// The archive of `everything` as bytes of a ZIP file.
pub fn pack(everything: &Everything) -> anyhow::Result<Vec<u8>> {
    let mut zip = ZipWriter::new(Cursor::new(Vec::new()));
    let mut put = |name: &str, text: &str| -> anyhow::Result<()> {
        zip.start_file(name, SimpleFileOptions::default())?;
        Ok(zip.write_all(text.as_bytes())?)
    };
    let builds: Vec<ListedBuild> = everything.builds.iter().map(listed).collect();
    for (build, listed) in everything.builds.iter().zip(&builds) {
        for (revision, listed) in build.revisions.iter().zip(&listed.revisions) {
            put(&listed.file, &revision.document)?;
        }
    }
    if !everything.parts.is_empty() {
        put(SHELF, &write_sheet(&everything.parts))?;
    }
    let contents = Contents { format: FORMAT.to_owned(), version: VERSION, builds };
    put(CONTENTS, &serde_json::to_string_pretty(&contents)?)?;
    Ok(zip.finish()?.into_inner())
}

fn listed(build: &KeptBuild) -> ListedBuild {
    let revision = |revision: &KeptRevision| ListedRevision {
        file: format!("builds/{}/revision-{}.json", build.id, revision.number),
        number: revision.number,
        name: revision.name.clone(),
        saved_at: revision.saved_at.clone(),
        sha256: digest(&revision.document),
    };
    ListedBuild {
        id: build.id,
        archived_at: build.archived_at.clone(),
        revisions: build.revisions.iter().map(revision).collect(),
    }
}

/// Everything of an archive, checked: each document is in order and is the one that was packed.
pub fn unpack(bytes: &[u8]) -> anyhow::Result<Everything> {
    let mut zip = ZipArchive::new(Cursor::new(bytes)).context("this is no ZIP archive")?;
    let contents: Contents = serde_json::from_str(&text_of(&mut zip, CONTENTS)?).context("reading contents.json")?;
    if contents.format != FORMAT || contents.version > VERSION {
        bail!("this is no archive of builds, or one of a newer version ({} {})", contents.format, contents.version);
    }
    let parts = match zip.index_for_name(SHELF) {
        Some(_) => read_sheet(&text_of(&mut zip, SHELF)?, UnitSystem::Inch).context("reading shelf.csv")?,
        None => Vec::new(),
    };
    let mut builds = Vec::with_capacity(contents.builds.len());
    for listed in contents.builds {
        let revisions =
            listed.revisions.into_iter().map(|revision| unpacked(&mut zip, revision)).collect::<Result<_, _>>()?;
        builds.push(KeptBuild { id: listed.id, archived_at: listed.archived_at, revisions });
    }
    Ok(Everything { builds, parts })
}

fn unpacked(zip: &mut ZipArchive<Cursor<&[u8]>>, listed: ListedRevision) -> anyhow::Result<KeptRevision> {
    let document = text_of(zip, &listed.file)?;
    if digest(&document) != listed.sha256 {
        bail!("{} is damaged: it is not what was packed", listed.file);
    }
    Build::read(&document).with_context(|| format!("{} is not in order", listed.file))?;
    Ok(KeptRevision { number: listed.number, name: listed.name, saved_at: listed.saved_at, document })
}

fn text_of(zip: &mut ZipArchive<Cursor<&[u8]>>, name: &str) -> anyhow::Result<String> {
    let file = zip.by_name(name).with_context(|| format!("the archive has no {name}"))?;
    let mut text = String::new();
    file.take(MOST_BYTES).read_to_string(&mut text).with_context(|| format!("reading {name}"))?;
    Ok(text)
}

#[cfg(test)]
mod tests {
    use super::*;

    const DEMO: &str = include_str!("../../../demo/tollgate-388-hauler.json");
    const PARTS: &str = include_str!("../../../demo/parts.csv");

    fn everything() -> Everything {
        let revision = |number, document: &str| KeptRevision {
            number,
            name: "Hauler".to_owned(),
            saved_at: "2026-01-02T03:04:05.678Z".to_owned(),
            document: document.to_owned(),
        };
        let builds = vec![KeptBuild {
            id: 7,
            archived_at: Some("2026-02-02T03:04:05.678Z".to_owned()),
            revisions: vec![revision(1, DEMO), revision(3, &DEMO.replace("4.0", "4.00"))],
        }];
        Everything { builds, parts: read_sheet(PARTS, UnitSystem::Inch).unwrap() }
    }

    #[test]
    fn what_is_packed_comes_out_as_it_was() {
        let all = everything();
        assert_eq!(unpack(&pack(&all).unwrap()).unwrap(), all);
    }

    #[test]
    fn a_changed_document_and_a_text_that_is_no_archive_are_refused() {
        let mut all = everything();
        all.builds[0].revisions.truncate(1);
        let bytes = pack(&all).unwrap();
        // The same archive with another document under the digest of the first.
        let (mut old, mut new) =
            (ZipArchive::new(Cursor::new(bytes.as_slice())).unwrap(), ZipWriter::new(Cursor::new(Vec::new())));
        for name in old.file_names().map(str::to_owned).collect::<Vec<_>>() {
            let text = text_of(&mut old, &name).unwrap();
            new.start_file(&name, SimpleFileOptions::default()).unwrap();
            new.write_all(if name.contains("revision") { "{}" } else { &text }.as_bytes()).unwrap();
        }
        let spoiled = new.finish().unwrap().into_inner();
        assert!(unpack(&spoiled).unwrap_err().to_string().contains("damaged"));
        assert!(unpack(b"no archive").is_err());
        assert!(unpack(&bytes[..bytes.len() / 2]).is_err());
    }
}
