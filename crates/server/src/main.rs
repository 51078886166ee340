//! The `upper-lobe` binary.

fn main() -> std::process::ExitCode {
    upper_lobe_server::command::run()
}
