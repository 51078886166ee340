//! `upper-lobe serve`: the application on loopback.

use super::database::open_store;
use super::{ServeOptions, demo};
use crate::app::{Shared, configure};
use crate::guard::AllowedHosts;
use crate::instruments::Hub;
use crate::jobs::Jobs;
use crate::points;
use actix_web::{App, HttpServer, web};
use anyhow::{Context, bail};
use std::net::{SocketAddr, TcpListener};
use std::process::ExitCode;
use tracing_actix_web::TracingLogger;
use tracing_subscriber::EnvFilter;

/// Seconds that answers under way get after a stop signal.
const SHUTDOWN_SECONDS: u64 = 5;

/// Serves until stopped.
pub fn run(options: &ServeOptions) -> anyhow::Result<ExitCode> {
    if !options.address.is_loopback() {
        bail!(
            "{} is not a loopback address: this server has no accounts and serves this machine only; use 127.0.0.1",
            options.address
        );
    }
    start_logs(options.log_json);
    actix_web::rt::System::new().block_on(serve(options))?;
    Ok(ExitCode::SUCCESS)
}

async fn serve(options: &ServeOptions) -> anyhow::Result<()> {
    let address = SocketAddr::new(options.address, options.port);
    let listener = TcpListener::bind(address)
        .with_context(|| format!("listening on {address}; choose another with --port or UPPER_LOBE_PORT"))?;
    let bound = listener.local_addr()?;
    let store = open_store(&options.database, options.read_only).await?;
    let is_empty = store.list(false).await?.is_empty() && store.list(true).await?.is_empty();
    if options.demo && !store.is_read_only() && is_empty {
        demo::load(&store).await?;
    }
    let damage = store.check().await?;
    for found in &damage {
        tracing::error!("{found}");
    }
    let stages = web::Data::from(points::kept(&store));
    let shared = Shared {
        store: web::Data::new(store.clone()),
        damage: web::Data::new(damage),
        stages,
        jobs: web::Data::new(Jobs::default()),
        hub: web::Data::new(Hub::default()),
        hosts: web::Data::new(AllowedHosts::loopback(bound.port())),
    };
    let server =
        HttpServer::new(move || App::new().wrap(TracingLogger::default()).configure(configure(shared.clone())))
            .shutdown_timeout(SHUTDOWN_SECONDS)
            .workers(2)
            .listen(listener)?
            .run();
    println!("Upper Lobe is at http://{bound}/ (stop with Ctrl+C)");
    server.await?;
    store.close().await;
    tracing::info!("stopped");
    Ok(())
}

fn start_logs(json: bool) {
    let filter = EnvFilter::try_from_default_env().unwrap_or_else(|_| EnvFilter::new("warn,upper_lobe_server=info"));
    let logs = tracing_subscriber::fmt().with_env_filter(filter).with_writer(std::io::stderr);
    if json { logs.json().init() } else { logs.init() }
}
