//! What a device may ask for: every route by itself. A route that is not here is the main screen's alone.

use super::Role;

/// What a route asks of a device.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub struct Allowed {
    /// The least role that may; `None` where one needs not be paired.
    pub least: Option<Role>,
    /// What it changes, for the log; `None` where it changes nothing.
    pub changes: Option<&'static str>,
}

const LOOK: Allowed = Allowed { least: Some(Role::Look), changes: None };
const COMPUTE: Allowed = Allowed { least: Some(Role::Everything), changes: None };

const fn anybody() -> Allowed {
    Allowed { least: None, changes: None }
}

const fn changes(least: Role, what: &'static str) -> Allowed {
    Allowed { least: Some(least), changes: Some(what) }
}

/// Methods and paths as they are described.
const ROUTES: &[(&str, &str, Allowed)] = &[
    ("GET", "/api/me", anybody()),
    ("POST", "/api/pair", anybody()),
    ("GET", "/api/state", LOOK),
    ("GET", "/api/glossary", LOOK),
    ("GET", "/api/families", LOOK),
    ("GET", "/api/builds", LOOK),
    ("GET", "/api/builds/{id}", LOOK),
    ("GET", "/api/builds/{id}/revisions", LOOK),
    ("GET", "/api/builds/{id}/revisions/{number}", LOOK),
    ("GET", "/api/parts", LOOK),
    ("GET", "/api/parts.csv", LOOK),
    ("GET", "/api/instruments", LOOK),
    ("GET", "/api/instruments/{name}/live", LOOK),
    ("GET", "/api/instruments/{name}/pull", LOOK),
    // What is computed of a document that is sent along and kept nowhere.
    ("POST", "/api/workbench", LOOK),
    ("POST", "/api/weigh", LOOK),
    ("POST", "/api/bench-sheet", LOOK),
    ("POST", "/api/bench-expected", LOOK),
    ("POST", "/api/dyno", LOOK),
    ("POST", "/api/history", LOOK),
    ("POST", "/api/service", LOOK),
    ("POST", "/api/service/calendar", LOOK),
    ("POST", "/api/shop", LOOK),
    ("POST", "/api/owner", LOOK),
    ("POST", "/api/pull-file", LOOK),
    ("PUT", "/api/pull-mappings", changes(Role::Everything, "mapped the columns of a dyno's files")),
    ("POST", "/api/order", LOOK),
    ("POST", "/api/order/workbook", LOOK),
    ("POST", "/api/differences", LOOK),
    ("POST", "/api/merge", LOOK),
    ("POST", "/api/parts/fit", LOOK),
    ("GET", "/api/parts/lobes", LOOK),
    ("POST", "/api/begin", LOOK),
    ("POST", "/api/card-cam", LOOK),
    ("POST", "/api/curve", LOOK),
    ("POST", "/api/control", LOOK),
    ("POST", "/api/film", LOOK),
    ("POST", "/api/phasing", LOOK),
    ("POST", "/api/choose", LOOK),
    // Minutes of both cores: not for everybody who may look.
    ("POST", "/api/score", COMPUTE),
    ("POST", "/api/search", COMPUTE),
    ("POST", "/api/calibrate", COMPUTE),
    ("POST", "/api/motion", COMPUTE),
    ("POST", "/api/sensitivity", COMPUTE),
    ("POST", "/api/diagnosis", COMPUTE),
    ("POST", "/api/tolerance", COMPUTE),
    ("POST", "/api/builds/{id}/readings", changes(Role::Readings, "took readings into build {id}")),
    ("PUT", "/api/builds/{id}", changes(Role::Readings, "saved build {id}")),
    ("POST", "/api/builds", changes(Role::Everything, "kept a new build")),
    ("POST", "/api/builds/blank", changes(Role::Everything, "began an empty build")),
    ("POST", "/api/builds/{id}/archive", changes(Role::Everything, "archived build {id}")),
    ("POST", "/api/builds/{id}/restore", changes(Role::Everything, "brought build {id} back")),
    ("POST", "/api/parts/keep", changes(Role::Everything, "kept a part on the shelf")),
    ("DELETE", "/api/parts", changes(Role::Everything, "took a part off the shelf")),
    ("POST", "/api/parts/sheet", changes(Role::Everything, "read a sheet of parts")),
    ("PUT", "/api/instruments", changes(Role::Everything, "set up an instrument")),
    ("DELETE", "/api/instruments/{name}", changes(Role::Everything, "forgot instrument {id}")),
];

/// What a route asks, with what stands for `{id}` in `path`; `None` for the main screen's own, and for no route at all.
pub fn allowed<'a>(method: &str, path: &'a str) -> Option<(Allowed, Option<&'a str>)> {
    let (_, pattern, allowed) = ROUTES.iter().find(|(own, pattern, _)| *own == method && is_of(path, pattern))?;
    let named = path.split('/').zip(pattern.split('/')).find(|(_, of)| of.starts_with('{')).map(|(part, _)| part);
    Some((*allowed, named))
}

/// Whether `path` is one of the described path `pattern`, such as `/api/builds/{id}`.
pub fn is_of(path: &str, pattern: &str) -> bool {
    let (own, of) = (path.split('/'), pattern.split('/'));
    own.clone().count() == of.clone().count()
        && own.zip(of).all(|(part, of)| part == of || (of.starts_with('{') && !part.is_empty()))
}

/// Routes of the main screen alone: who is let in, what leaves the shop as a whole, and what is gone for good.
pub const OF_THE_MAIN_SCREEN: &[(&str, &str)] = &[
    ("GET", "/api/pairing"),
    ("POST", "/api/pairing"),
    ("DELETE", "/api/pairing"),
    ("GET", "/api/devices"),
    ("DELETE", "/api/devices/{id}"),
    ("GET", "/api/archive"),
    ("POST", "/api/archive"),
    ("DELETE", "/api/builds/{id}"),
];

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn a_path_is_known_by_all_of_it() {
        let (found, named) = allowed("PUT", "/api/builds/7").unwrap();
        assert_eq!((found.least, named), (Some(Role::Readings), Some("7")));
        for (method, path) in [
            ("DELETE", "/api/builds/7"),
            ("PUT", "/api/builds/7/"),
            ("PUT", "/api/builds//"),
            ("PUT", "/api/builds"),
            ("PATCH", "/api/builds/7"),
            ("HEAD", "/api/builds/7"),
            ("GET", "/api/devices"),
            ("GET", "/API/state"),
        ] {
            assert_eq!(allowed(method, path), None, "{method} {path}");
        }
    }
}
