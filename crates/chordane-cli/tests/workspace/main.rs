//! What stands in the repository beside the crates is true: the README's scores, the guide's pictures, the page of words,
//! the map of the house. These tests are not part of the packages.

#![allow(clippy::unwrap_used, clippy::expect_used, reason = "a test stops where it fails")]

use std::collections::{BTreeMap, BTreeSet};
use std::path::{Path, PathBuf};
use std::process::Command;

use chordane_score::{Limits, Runner, Settings};

/// The top folder of the repository.
fn top() -> PathBuf {
    Path::new(env!("CARGO_MANIFEST_DIR")).join("../..")
}

fn read(file: &str) -> String {
    std::fs::read_to_string(top().join(file)).unwrap_or_else(|error| panic!("{file}: {error}"))
}

/// Tests lie in target/<profile>/deps, examples in target/<profile>/examples.
fn example(name: &str) -> PathBuf {
    let deps = std::env::current_exe().unwrap();
    let built = deps.ancestors().nth(2).unwrap();
    built.join("examples").join(format!("{name}{}", std::env::consts::EXE_SUFFIX))
}

/// The scores that the READMEs show run as they stand, and nothing looks wrong with them.
#[test]
fn the_scores_of_the_readmes_run() {
    let mut ran = 0;
    for file in ["README.md", "crates/chordane-score/README.md", "crates/chordane-cli/README.md"] {
        let page = read(file);
        for score in page.split("```chord\n").skip(1).filter_map(|rest| rest.split("```").next()) {
            let runner = Runner::read(file, score, Limits::default()).unwrap();
            let drawn = runner.run(&Settings::new()).into_sheet().unwrap();
            assert!(drawn.items().len() > 0, "{score}");
            assert_eq!(drawn.check().unwrap().findings, [], "{score}");
            ran += 1;
        }
    }
    assert!(ran >= 4, "{ran}");
}

/// Nothing of the demo looks wrong: no warning stands there, and no more hints than a kink that a reshape is shown to make.
#[test]
fn the_demo_is_sound() {
    for entry in std::fs::read_dir(top().join("demo")).unwrap() {
        let file = entry.unwrap().path();
        if file.extension().is_none_or(|ending| ending != "chord") {
            continue;
        }
        let (name, source) = (file.display().to_string(), std::fs::read_to_string(&file).unwrap());
        let runner = Runner::read(name.as_str(), source, Limits::default()).unwrap();
        let run = runner.run(&Settings::new());
        let mut found = run.sheet().unwrap().check().unwrap().findings;
        found.extend(runner.knob_findings(&run));
        let shown = if name.ends_with("reshapes.chord") { 2 } else { 0 };
        assert!(
            found.len() <= shown && found.iter().all(|one| one.level.name() == "hint"),
            "{name}: {found:?}"
        );
    }
}

/// The Rust of the first README is that of the library's, which the tests of the docs compile and run.
#[test]
fn the_readmes_rust_is_one() {
    let block = |page: &str| {
        page.split("```rust\n").nth(1).and_then(|rest| rest.split("```").next()).map(str::to_owned)
    };
    assert!(block(&read("README.md")).is_some());
    assert_eq!(block(&read("README.md")), block(&read("crates/chordane/README.md")));
}

#[test]
fn the_page_of_words_is_up_to_date() {
    let made = chordane_score::words::markdown();
    assert!(
        read("docs/words.md") == made,
        "docs/words.md is out of date: cargo run -q -p chordane-cli -- words --markdown > docs/words.md"
    );
}

#[test]
fn the_page_of_the_language_is_up_to_date() {
    assert!(
        read("docs/language.md") == chordane_score::words::LANGUAGE_MD,
        "docs/language.md is out of date: cargo run -q -p chordane-cli -- words language --markdown > docs/language.md"
    );
}

/// The guide's pictures are those that the example draws.
#[test]
fn the_guides_pictures_are_up_to_date() {
    let folder = tempfile::tempdir().unwrap();
    let done = Command::new(example("shape_pictures")).arg(folder.path()).output().unwrap();
    assert!(done.status.success());
    let page = read("docs/guide.md");
    let mut compared = 0;
    for entry in std::fs::read_dir(folder.path()).unwrap() {
        let drawn = entry.unwrap().path();
        let name = drawn.file_name().unwrap().to_str().unwrap();
        let kept = std::fs::read_to_string(top().join("docs/guide").join(name)).unwrap_or_default();
        let same = std::fs::read_to_string(&drawn).unwrap() == kept;
        assert!(same, "{name} is out of date: cargo run --example shape_pictures docs/guide");
        assert!(page.contains(&format!("guide/{name}")), "{name} is not in the guide");
        compared += 1;
    }
    assert!(compared > 40, "{compared}");
}

/// The rooms of the library in the order of the street, each of which uses only those before it.
const STREET: &[&str] = &[
    "ground", "number", "path", "shape", "measure", "chance", "arrange", "reshape", "combine", "sheet",
    "motion", "scene", "check", "raster", "write", "picture", "read", "draft",
];

/// The files below a folder.
fn files(folder: &Path) -> Vec<PathBuf> {
    let entries = std::fs::read_dir(folder).unwrap().map(|entry| entry.unwrap().path());
    entries.flat_map(|path| if path.is_dir() { files(&path) } else { vec![path] }).collect()
}

/// The code of a file: without its comments and its own tests.
fn code(file: &Path) -> String {
    let text = std::fs::read_to_string(file).unwrap();
    let text = text.split("#[cfg(test)]\nmod tests").next().unwrap_or_default();
    text.lines().filter(|line| !line.trim_start().starts_with("//")).collect::<Vec<_>>().join("\n")
}

/// Whether code names a module of the library, by itself or in a list.
fn names_module(code: &str, module: &str) -> bool {
    let listed = |list: &str| {
        let list = list.split(';').next().unwrap_or_default();
        list.split(['{', ',', ' ', '\n'])
            .any(|one| one.strip_prefix(module).is_some_and(|rest| rest.starts_with("::")))
    };
    code.contains(&format!("crate::{module}::")) || code.split("crate::{").skip(1).any(listed)
}

/// The types that a file defines.
fn types(code: &str) -> impl Iterator<Item = &str> {
    let defined = code.lines().filter_map(|line| {
        let line = ["pub ", "pub(crate) ", "pub(super) "]
            .into_iter()
            .find_map(|seen| line.strip_prefix(seen))
            .unwrap_or(line);
        line.strip_prefix("struct ").or_else(|| line.strip_prefix("enum "))
    });
    defined.map(|rest| rest.split(|c: char| !c.is_alphanumeric()).next().unwrap_or_default())
}

/// The methods that a file defines in inherent `impl` blocks, with their types.
fn methods(code: &str) -> Vec<(&str, &str)> {
    let (mut found, mut of) = (Vec::new(), "");
    for line in code.lines() {
        if let Some(rest) = line.strip_prefix("impl") {
            let rest =
                if rest.starts_with('<') { rest.split_once("> ").map_or("", |(_, rest)| rest) } else { rest };
            let name = rest.trim_start().split(|c: char| !c.is_alphanumeric()).next().unwrap_or_default();
            of = if line.contains(" for ") { "" } else { name };
        } else if line.starts_with('}') {
            of = "";
        }
        let Some(own) = line.strip_prefix("    ").filter(|own| !of.is_empty() && !own.starts_with(' '))
        else {
            continue;
        };
        if let Some((_, rest)) = own.split_once("fn ") {
            found.push((of, rest.split(['(', '<']).next().unwrap_or_default()));
        }
    }
    found
}

/// The names that a file calls as methods.
fn calls(code: &str) -> BTreeSet<&str> {
    let name = |rest: &'_ str| rest.find(|c: char| !(c.is_alphanumeric() || c == '_')).unwrap_or(rest.len());
    let called = code.split('.').skip(1).map(|rest| rest.split_at(name(rest)));
    let called = called
        .filter(|(name, behind)| !name.is_empty() && (behind.starts_with('(') || behind.starts_with("::<")));
    called.map(|(name, _)| name).collect()
}

/// Methods of paths and the like that other types have, too.
const COMMON: [&str; 4] = ["distance", "length", "take", "then"];

#[test]
fn no_module_uses_what_stands_after_it() {
    let source = top().join("crates/chordane/src");
    let all: Vec<(usize, PathBuf, String)> = STREET
        .iter()
        .enumerate()
        .flat_map(|(place, module)| files(&source.join(module)).into_iter().map(move |file| (place, file)))
        .map(|(place, file)| {
            let code = code(&file);
            (place, file, code)
        })
        .collect();
    let own: BTreeSet<(usize, &str)> =
        all.iter().flat_map(|(place, _, code)| types(code).map(move |name| (*place, name))).collect();
    // Where each method name is first defined, and the names that a module adds to the types of others.
    let mut first: BTreeMap<&str, usize> = BTreeMap::new();
    let mut extended: BTreeSet<&str> = BTreeSet::new();
    for (place, _, code) in &all {
        for (of, name) in methods(code) {
            first.entry(name).or_insert(*place);
            if !own.contains(&(*place, of)) {
                extended.insert(name);
            }
        }
    }
    let mut wrong = Vec::new();
    for (place, file, code) in &all {
        let module = STREET[*place];
        for later in STREET[place + 1..].iter().filter(|later| names_module(code, later)) {
            wrong.push(format!("{} uses {later}, which stands after {module}", file.display()));
        }
        for name in calls(code).into_iter().filter(|name| !COMMON.contains(name) && extended.contains(name)) {
            if let Some(later) = first.get(name).filter(|later| *later > place) {
                wrong.push(format!("{} calls .{name}() of {}", file.display(), STREET[*later]));
            }
        }
        if code.contains("crate::prelude") {
            wrong.push(format!("{} uses the prelude", file.display()));
        }
    }
    assert_eq!(wrong, [""; 0]);
    assert!(all.len() > 100 && extended.len() > 100, "{} {}", all.len(), extended.len());
    let map = read("docs/architecture.md");
    let street = STREET.join(" -> ");
    let shown = map.split_whitespace().collect::<Vec<_>>().join(" ");
    assert!(shown.contains(&street), "docs/architecture.md shows the street");
}

/// Only the scene walks the tree of a sheet: nobody else looks into both kinds of node, but for what a node says of itself.
#[test]
fn only_the_scene_walks_the_tree() {
    let source = top().join("crates/chordane/src");
    let walks = |file: &PathBuf| {
        let code = code(file);
        let both =
            |name: &str| ["Group", "Item"].iter().all(|kind| code.contains(&format!("{name}::{kind}(")));
        both("Node")
            || (both("Self") && code.contains("for Node {") || code.contains("impl Node {") && both("Self"))
    };
    let mut found: Vec<String> = files(&source)
        .into_iter()
        .filter(walks)
        .map(|file| file.strip_prefix(&source).unwrap().display().to_string())
        .collect();
    found.sort();
    assert_eq!(found, ["scene/build.rs", "scene/edit.rs", "sheet/group.rs"]);
}

/// Everything that is written goes through the one routine that writes files whole, but for the journal of a tracing, which is only ever added to.
#[test]
fn files_are_written_in_one_place() {
    let mut found: Vec<String> = Vec::new();
    for name in ["chordane", "chordane-score", "chordane-cli"] {
        let source = top().join("crates").join(name).join("src");
        let writes = |file: &&PathBuf| {
            if file.to_string_lossy().ends_with("tests.rs") {
                return false;
            }
            let code = code(file).replace("WholeFile::create(", "");
            ["fs::write(", "File::create(", "OpenOptions::new("].iter().any(|way| code.contains(way))
        };
        found.extend(
            files(&source)
                .iter()
                .filter(writes)
                .map(|file| file.file_name().unwrap().to_string_lossy().into_owned()),
        );
    }
    assert_eq!(found, ["whole.rs", "journal.rs"]);
}
