//! The real server on a database, for tests that look at it from outside.

use serde_json::Value;
use std::io::{BufRead, BufReader};
use std::path::Path;
use std::process::{Child, Command, Stdio};

/// The real binary, serving.
pub struct Served {
    pub process: Child,
    pub url: String,
}

/// Serves `database` on a port that is free.
pub fn serve(database: &Path) -> Served {
    serve_with(database, &[])
}

/// The same with more options.
pub fn serve_with(database: &Path, options: &[&str]) -> Served {
    let mut process = Command::new(env!("CARGO_BIN_EXE_upper-lobe"))
        .args(["serve", "--port", "0", "--database"])
        .arg(database)
        .args(options)
        .stdout(Stdio::piped())
        .stderr(Stdio::null())
        .spawn()
        .expect("the server starts");
    let mut line = String::new();
    BufReader::new(process.stdout.take().expect("piped")).read_line(&mut line).expect("it says where it is");
    let url = line.split_whitespace().find(|word| word.starts_with("http")).expect("an address");
    Served { url: url.trim_end_matches('/').to_owned(), process }
}

/// The answer to a question.
pub fn get(url: &str) -> Value {
    let answer = ureq::get(url).call().expect("the server answers");
    serde_json::from_str(&answer.into_string().expect("a body")).expect("JSON")
}
