import { useEffect, useState, type ReactNode } from "react";
import { useNavigate } from "react-router";
import { useImports } from "./imports";

function carriesFiles(event: DragEvent): boolean {
  return event.dataTransfer?.types.includes("Files") ?? false;
}

/** Clips may be dropped anywhere in the window, on any page. */
export function DropAnywhere({ children }: { children: ReactNode }) {
  const { add } = useImports();
  const navigate = useNavigate();
  const [over, setOver] = useState(false);
  useEffect(() => {
    let depth = 0;
    const enter = (event: DragEvent) => {
      if (!carriesFiles(event)) return;
      depth += 1;
      setOver(true);
    };
    const leave = () => {
      depth = Math.max(0, depth - 1);
      if (depth === 0) setOver(false);
    };
    const hover = (event: DragEvent) => carriesFiles(event) && event.preventDefault();
    const drop = (event: DragEvent) => {
      if (!carriesFiles(event)) return;
      event.preventDefault();
      depth = 0;
      setOver(false);
      add(event.dataTransfer?.files ?? []);
      void navigate("/takes");
    };
    window.addEventListener("dragenter", enter);
    window.addEventListener("dragleave", leave);
    window.addEventListener("dragover", hover);
    window.addEventListener("drop", drop);
    return () => {
      window.removeEventListener("dragenter", enter);
      window.removeEventListener("dragleave", leave);
      window.removeEventListener("dragover", hover);
      window.removeEventListener("drop", drop);
    };
  }, [add, navigate]);
  return (
    <>
      {children}
      {over && (
        <div className="pointer-events-none fixed inset-3 z-(--layer-drop) grid place-items-center border-2 border-dashed border-lichen-deep bg-lichen-wash">
          <p className="title text-title">Let go to bring the clips in</p>
        </div>
      )}
    </>
  );
}
