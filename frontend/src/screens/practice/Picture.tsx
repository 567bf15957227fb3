import type { Exercise, Solved } from "../../api/client";
import { ExerciseDrawing } from "./ExerciseDrawing";
import { PlateOfExercise } from "./PlateOfExercise";

interface Props {
  exercise: Exercise;
  /** Once it is shown: a plate then has all in its place. */
  solved: Solved | null;
  /** What stands out: keys of choices or of wheels. */
  chosen: string[];
  /** Nothing where it can only be looked at. */
  onChoose: ((key: string) => void) | null;
}

/** What an exercise is about: its plate where holes are asked for, else its line. */
export function Picture({ exercise, solved, chosen, onChoose }: Props) {
  const plate = solved?.plate ?? exercise.plate;
  if (!plate) return <ExerciseDrawing exercise={exercise} chosen={chosen} onChoose={onChoose} />;
  const [hole = ""] = chosen;
  return <PlateOfExercise plate={plate} choices={exercise.ask.choices} chosen={hole} onChoose={onChoose} />;
}
