import { useQueryClient } from "@tanstack/react-query";
import { Segmented } from "antd";
import { useSyncExternalStore } from "react";
import { NavLink, Outlet, useMatch } from "react-router";
import { api, saved, saving } from "../api/client";
import { useChanges, useProject, useSettings } from "../api/hooks";
import { DraftScope, EntryText } from "../fields/Entry";
import { ClothSwitch } from "./ClothSwitch";
import { Rail } from "./Rail";
import { TallyBar } from "./TallyBar";
import { Timers } from "../devices/Timers";
import { useTapeDevice } from "../devices/useTape";

function Saved() {
  const now = useSyncExternalStore(saving.subscribe, saving.get);
  const text = {
    idle: "",
    saving: "saving …",
    saved: `saved ${now.at?.toLocaleTimeString([], { hour: "2-digit", minute: "2-digit" }) ?? ""}`,
    failed: "not saved",
  }[now.state];
  return (
    <span className={now.state === "failed" ? "saved spoil" : "saved"} role="status" data-state={now.state}>
      {text}
    </span>
  );
}

/** Says when a digital tape's next reading will be taken. */
function TapeWord() {
  const listening = useTapeDevice();
  return <span className="tape-word">{listening ? "tape: ready" : ""}</span>;
}

function Units() {
  const client = useQueryClient();
  const settings = useSettings();
  return (
    <Segmented<"metric" | "imperial">
      aria-label="Units"
      options={[
        { value: "metric", label: "cm" },
        { value: "imperial", label: "in / yd" },
      ]}
      value={settings?.system ?? "metric"}
      onChange={async (system) => {
        await saved(api.PATCH("/api/settings", { body: { system } }));
        // what is still on its way was asked for in the other units
        await client.cancelQueries();
        await client.invalidateQueries();
      }}
    />
  );
}

function ProjectHeader() {
  const project = useProject();
  const change = useChanges();
  if (!project.data) return <div className="titles" />;
  const { name, note } = project.data;
  return (
    <div className="titles">
      <EntryText label="Project name" bare className="title-name" path="name" value={name} onSave={(v) => change.project({ name: v })} />
      <EntryText label="Note" bare className="title-note" path="note" value={note} placeholder="for whom, for when"
        onSave={(v) => change.project({ note: v })} />
    </div>
  );
}

/** The frame: rail, header, the stage, the tally. */
export function Shell() {
  const match = useMatch("/projects/:projectId/*");
  return (
    <>
      <Timers />
      {match ? <ProjectFrame /> : <Frame />}
    </>
  );
}

function Frame() {
  return (
    <div className="frame">
      <Rail stages={undefined} projectId={undefined} />
      <header className="top">
        <div className="titles">
          <nav className="places" aria-label="Places">
            <NavLink to="/" end>Bench</NavLink>
            <NavLink to="/cupboard">Cupboard</NavLink>
            <NavLink to="/washday">Washing day</NavLink>
          </nav>
        </div>
        <TapeWord />
        <Units />
        <Saved />
      </header>
      <Outlet />
    </div>
  );
}

function ProjectFrame() {
  const project = useProject();
  return (
    <div className="frame">
      <Rail stages={project.data?.stages} projectId={project.data?.id} />
      <header className="top">
        <ProjectHeader />
        <TapeWord />
        <Units />
        <Saved />
      </header>
      {project.data && <ClothSwitch project={project.data} />}
      {project.isError ? (
        <main className="stage">
          <h1>This project cannot be opened</h1>
          <p>{project.error.message}</p>
        </main>
      ) : project.data && !project.isPlaceholderData ? (
        // what is typed and shown is one cloth's: another cloth's page begins anew
        <DraftScope key={project.data.use_id} value={`use-${project.data.use_id}`}>
          <Outlet />
        </DraftScope>
      ) : (
        <main className="stage">
          <p className="quiet">Fetching …</p>
        </main>
      )}
      {project.data && <TallyBar project={project.data} />}
    </div>
  );
}
