/** Who is signed in, and the tables the core shows numbers by. */
import { useMutation, useQuery } from "@tanstack/react-query";
import { answer, api } from "./client";

export function useSession() {
  return useQuery({
    queryKey: ["session"],
    queryFn: () => answer(api.GET("/api/session/")),
    staleTime: Number.POSITIVE_INFINITY,
  });
}

export function useVocabulary() {
  return useQuery({
    queryKey: ["vocabulary"],
    queryFn: () => answer(api.GET("/api/vocabulary/")),
    staleTime: Number.POSITIVE_INFINITY,
  });
}

/** @param before is called once the server has agreed, before the page begins anew. */
export function useSignOut(before: () => Promise<void>) {
  return useMutation({
    mutationFn: () => answer(api.POST("/api/accounts/sign-out/")),
    // Loaded anew, the page keeps nothing of what it has shown.
    onSuccess: async () => {
      await before();
      window.location.assign("/");
    },
  });
}
