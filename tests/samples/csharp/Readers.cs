// Locks of readers and writers, taken inside of the try that gives them back; a blank before the brackets.
using System.Collections.Generic;
using System.Threading;

public static class QuayMarks  // entity: static-holder QuayMarks eager language
{
    private static readonly ReaderWriterLockSlim gate = new ReaderWriterLockSlim ();  // harmless: gate
    private static readonly Dictionary<string, string> marks = new Dictionary<string, string> ();

    public static string Find (string quay)
    {
        try {
            gate.EnterUpgradeableReadLock ();
            string found;
            if (marks.TryGetValue (quay, out found)) // near: thread.mixed-guard
                return found;

            try {
                gate.EnterWriteLock ();
                marks.Add (quay, quay + "!"); // near: thread.unguarded-state
                return marks [quay];
            } finally {
                gate.ExitWriteLock ();
            }
        } finally {
            gate.ExitUpgradeableReadLock ();
        }
    }

    public static void Forget ()
    {
        gate.EnterWriteLock ();
        marks.Clear ();
        gate.ExitWriteLock ();
    }
}
