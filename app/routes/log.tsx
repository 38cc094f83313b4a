export default function LogPage() {
  return null
}
