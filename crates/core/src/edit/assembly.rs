//! Edits of the assembly: lines signed, and undone with a reason. Nothing that was written is taken out.

use crate::document::Fault;
use serde_json::{Value, json};

/// A line signed by somebody at a time.
pub fn sign(document: &mut Value, (line, candidate): (&str, &str), by: &str, at: &str) -> Result<(), Fault> {
    let by = by.trim();
    if by.is_empty() {
        return Err(Fault::new("by", by, "a name: a line is signed by somebody"));
    }
    log(document)?.push(json!({ "line": line, "candidate": candidate, "by": by, "at": at }));
    Ok(())
}

/// A signed line undone.
pub fn undo(document: &mut Value, (line, candidate): (&str, &str), by: &str, at: &str, why: &str) -> Result<(), Fault> {
    let why = why.trim();
    if why.is_empty() {
        return Err(Fault::new("reason", why, "a reason: who comes after has to know it"));
    }
    let log = log(document)?;
    let is_own = |own: &&Value| own["line"].as_str() == Some(line) && own["candidate"].as_str() == Some(candidate);
    let is_signed = log.iter().rev().find(is_own).is_some_and(|own| own.get("undone").is_none());
    if !is_signed {
        return Err(Fault::new("line", line, "a line that is signed"));
    }
    log.push(json!({ "line": line, "candidate": candidate, "by": by.trim(), "at": at, "undone": why }));
    Ok(())
}

fn log(document: &mut Value) -> Result<&mut Vec<Value>, Fault> {
    let slot = document.as_object_mut().map(|map| map.entry("assembly").or_insert_with(|| json!([])));
    slot.and_then(Value::as_array_mut).ok_or_else(|| Fault::new("assembly", "no list", "a list of signed lines"))
}
