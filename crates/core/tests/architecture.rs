//! The house as its plan says: who may know whom, read from the sources themselves.

use std::collections::{BTreeMap, BTreeSet};
use std::fs;
use std::path::{Path, PathBuf};

type Module = Vec<String>;

/// Every source file below `directory`.
fn sources(directory: &Path) -> Vec<PathBuf> {
    let entries = fs::read_dir(directory).expect("a directory of sources").map(|entry| entry.unwrap().path());
    let (directories, files): (Vec<_>, Vec<_>) = entries.partition(|path| path.is_dir());
    let own = files.into_iter().filter(|path| path.extension().is_some_and(|end| end == "rs"));
    own.chain(directories.iter().flat_map(|inner| sources(inner))).collect()
}

/// A source without comments and without the tests at its end.
fn code(path: &Path) -> String {
    let text = fs::read_to_string(path).expect("a source");
    let own = text.split("#[cfg(test)]\nmod tests").next().unwrap_or_default().to_owned();
    own.lines().map(|line| line.split("//").next().unwrap_or_default()).collect::<Vec<_>>().join("\n")
}

fn module(root: &Path, path: &Path) -> Module {
    let relative = path.strip_prefix(root).unwrap().with_extension("");
    let mut parts: Module = relative.iter().map(|part| part.to_string_lossy().into_owned()).collect();
    parts.pop_if(|last| matches!(last.as_str(), "mod" | "lib" | "main"));
    parts
}

/// The paths of a tree of `use`.
fn expand(tree: &str) -> Vec<String> {
    let tree = tree.trim();
    let Some((before, inner)) = tree.split_once('{') else { return vec![tree.to_owned()] };
    let inner = inner.trim_end().strip_suffix('}').expect("a closed tree");
    let (mut depth, mut starts) = (0, vec![0]);
    for (at, c) in inner.char_indices() {
        match c {
            '{' => depth += 1,
            '}' => depth -= 1,
            ',' if depth == 0 => starts.push(at + 1),
            _ => {}
        }
    }
    let ends = starts.iter().skip(1).map(|start| start - 1).chain([inner.len()]);
    let items = starts.iter().zip(ends).map(|(start, end)| &inner[*start..end]).filter(|item| !item.trim().is_empty());
    items.flat_map(expand).map(|item| format!("{before}{item}")).collect()
}

/// The modules that each file of the core uses by name.
fn uses() -> BTreeMap<Module, BTreeSet<Module>> {
    let root = Path::new(env!("CARGO_MANIFEST_DIR")).join("src");
    let files: BTreeMap<Module, PathBuf> =
        sources(&root).into_iter().map(|path| (module(&root, &path), path)).collect();
    let target = |from: &Module, path: &str| -> Option<Module> {
        let parts: Vec<&str> =
            path.split("::").map(|part| part.split(" as ").next().unwrap_or_default().trim()).collect();
        let ups = parts.iter().take_while(|part| **part == "super").count();
        let mut at: Module = match parts[0] {
            "crate" => Vec::new(),
            "super" => from[..from.len() - ups].to_vec(),
            first if files.contains_key(&[from.as_slice(), &[first.to_owned()]].concat()) => from.clone(),
            _ => return None,
        };
        let rest = parts.iter().skip(if parts[0] == "crate" { 1 } else { ups });
        at.extend(rest.map(|part| (*part).to_owned()));
        while !files.contains_key(&at) {
            at.pop();
        }
        (at != *from).then_some(at)
    };
    let used = |from: &Module, path: &Path| -> BTreeSet<Module> {
        let text = code(path);
        let statements = text.split(['\n', ' ']).map(str::trim).filter(|word| *word == "use").count();
        let trees: Vec<&str> = text
            .match_indices("use ")
            .filter(|(at, _)| text[..*at].ends_with(['\n', ' ']) || *at == 0)
            .filter_map(|(at, _)| text[at + 4..].split(';').next())
            .collect();
        assert_eq!(trees.len(), statements, "{}", path.display());
        trees.into_iter().flat_map(expand).filter_map(|path| target(from, &path)).collect()
    };
    files.iter().map(|(from, path)| (from.clone(), used(from, path))).collect()
}

#[test]
fn no_two_files_import_each_other() {
    let uses = uses();
    assert!(uses.values().map(BTreeSet::len).sum::<usize>() > 500, "the sources are read");
    let mutual: Vec<String> = uses
        .iter()
        .flat_map(|(from, to)| to.iter().map(move |to| (from, to)))
        .filter(|(from, to)| from < to && uses.get(*to).is_some_and(|back| back.contains(*from)))
        .map(|(from, to)| format!("{} <-> {}", from.join("::"), to.join("::")))
        .collect();
    assert!(mutual.is_empty(), "{mutual:#?}");
}

#[test]
fn layers_know_only_those_before_them() {
    let strangers = [
        ("document", &["cam", "candidate", "limits", "train", "gas", "analysis"][..]),
        ("quantity", &["document", "cam", "analysis"]),
        ("cam", &["train", "clearance", "gas", "candidate", "limits", "analysis"]),
        ("train", &["gas", "candidate", "limits", "analysis"]),
        ("clearance", &["gas", "candidate", "limits", "analysis"]),
        ("gas", &["candidate", "limits", "analysis", "document"]),
        ("shop_twin", &["document", "given", "candidate", "limits", "analysis"]),
        ("candidate", &["limits", "choose", "analysis"]),
        ("limits", &["choose", "analysis"]),
    ];
    for (from, to) in uses() {
        let Some((_, unknown)) = strangers.iter().find(|(layer, _)| from.first().is_some_and(|first| first == layer))
        else {
            continue;
        };
        for used in to.iter().filter_map(|module| module.first()) {
            assert!(!unknown.contains(&used.as_str()), "{} knows {used}", from.join("::"));
        }
    }
}

#[test]
fn the_cores_only_door_is_analysis() {
    for package in ["server", "store"] {
        let root = Path::new(env!("CARGO_MANIFEST_DIR")).join("..").join(package).join("src");
        for path in sources(&root) {
            for (at, name) in code(&path).match_indices("upper_lobe_core::") {
                let text = code(&path);
                let next = &text[at + name.len()..];
                assert!(next.starts_with("analysis"), "{}: {}", path.display(), &next[..next.len().min(40)]);
            }
        }
    }
}

#[test]
fn every_file_of_tests_is_run() {
    for package in ["core", "server"] {
        let folder = Path::new(env!("CARGO_MANIFEST_DIR")).join("..").join(package).join("tests");
        let all = std::fs::read_to_string(folder.join("all.rs")).expect("the program of all tests");
        let files = std::fs::read_dir(&folder).expect("the folder").map(|entry| entry.expect("an entry").path());
        for path in files.filter(|path| path.extension().is_some_and(|end| end == "rs") && !path.ends_with("all.rs")) {
            let name = path.file_stem().expect("a name").to_string_lossy().into_owned();
            assert!(all.contains(&format!("mod {name};")), "{package}/tests/{name}.rs is in no program");
        }
    }
}
