export default function TrainerPage() {
  return null
}
