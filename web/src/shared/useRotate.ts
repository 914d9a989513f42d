import { useMutation } from "@tanstack/react-query";
import { useNavigate } from "react-router";
import { answer, client } from "../api/client";
import { opening } from "./typedAhead";

/** Begins the rotation of a login, or goes on with the one that is under way, and opens it. */
export function useRotate(onError?: (error: Error) => void) {
  const navigate = useNavigate();
  return useMutation({
    mutationFn: (login_id: string) =>
      opening(answer(client.POST("/rotations", { body: { login_id } }))),
    onSuccess: (rotation) => void navigate(`/rotate/${rotation.rotation_id}`),
    onError,
  });
}
