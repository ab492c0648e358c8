import { useNavigate } from "react-router";
import { useFirstLook } from "../../api/progress";
import { Button } from "../../ui/Button";
import { useNotices } from "../../ui/notices";

/** The way in for a newcomer: twelve minutes that show how one's own hand turns. */
export function FirstLook() {
  return (
    <div className="max-w-[70ch] p-4 sm:p-8">
      <h2 className="title mb-2 text-title">A first look at your hand</h2>
      <p className="mb-4 text-stone">
        Twelve minutes, six drills, twelve short takes, with nothing but a camera. From them comes
        your profile: how fast you turn by each way of holding, how much of it is tremor, breath,
        sway and step, how long a lens you bear, and what would gain most.
      </p>
      <FirstLookButton main />
    </div>
  );
}

/** Plans the first look, and opens it. */
export function FirstLookButton({ main = false }: { main?: boolean }) {
  const look = useFirstLook();
  const navigate = useNavigate();
  const { fail } = useNotices();
  return (
    <Button
      look={main ? "main" : "quiet"}
      disabled={look.isPending}
      onClick={() =>
        look.mutate(undefined, {
          onError: fail,
          onSuccess: (kept) => void navigate(`/practice/${kept.session_id}`),
        })
      }
    >
      Plan the first look, 12 minutes
    </Button>
  );
}
