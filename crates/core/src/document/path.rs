//! Paths of fields: `candidates[0].cam.intake.checks[1][0]`.

use serde_json::Value;

/// One step of a path.
#[derive(Debug, Clone, PartialEq, Eq)]
pub enum Step {
    /// A key of an object.
    Key(String),
    /// A place in a list.
    Index(usize),
}

/// The steps of `path`, or `None` when it is not one.
pub fn steps(path: &str) -> Option<Vec<Step>> {
    let mut steps = Vec::new();
    for part in path.split('.') {
        let (key, mut rest) = part.split_at(part.find('[').unwrap_or(part.len()));
        if key.is_empty() {
            return None;
        }
        steps.push(Step::Key(key.to_owned()));
        while !rest.is_empty() {
            let (index, after) = rest.strip_prefix('[')?.split_once(']')?;
            steps.push(Step::Index(index.parse().ok()?));
            rest = after;
        }
    }
    Some(steps)
}

/// The value at `path`.
pub fn get<'a>(root: &'a Value, path: &str) -> Option<&'a Value> {
    steps(path)?.iter().try_fold(root, |value, step| match step {
        Step::Key(key) => value.get(key),
        Step::Index(index) => value.get(index),
    })
}

/// The value at `path`, to be changed.
pub(crate) fn get_mut<'a>(root: &'a mut Value, path: &str) -> Option<&'a mut Value> {
    steps(path)?.iter().try_fold(root, |value, step| match step {
        Step::Key(key) => value.get_mut(key),
        Step::Index(index) => value.get_mut(index),
    })
}

/// `parent.key`, or `key` at the root.
pub fn join(parent: &str, key: &str) -> String {
    if parent.is_empty() { key.to_owned() } else { format!("{parent}.{key}") }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn a_path_leads_through_keys_and_places() {
        let value = serde_json::json!({"a": [{"b": [["x", "y"]]}]});
        assert_eq!(get(&value, "a[0].b[0][1]"), Some(&Value::from("y")));
        assert_eq!(get(&value, "a[1].b"), None);
        for bad in ["", ".", "a..b", "a[", "a[x]", "a[0", "a]0["] {
            assert_eq!(get(&value, bad), None, "{bad}");
        }
    }
}
