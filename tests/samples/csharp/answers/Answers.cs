// A class of static members that keeps its own answers: who asks it shares nothing with others.
using System;
using System.Collections.Generic;
using System.Text;

static class PortTexts  // entity: static-holder PortTexts lazy none  // near: coupling.wide-reach  // near: coupling.static-only-api
{
    private static UTF8Encoding encoding = null;
    private static bool? wide = null;
    private static string sign = null;  // harmless: sign

    public static byte[] Bytes(string text)
    {
        if (encoding == null) encoding = new UTF8Encoding(false, false);  // near: thread.unguarded-creation
        return encoding.GetBytes(text);
    }

    public static bool Wide()
    {
        if (wide.HasValue) return wide.Value;
        wide = Environment.Is64BitProcess;
        return wide.Value;
    }

    public static string Sign()
    {
        if (sign == null) sign = Environment.NewLine + "~";
        return sign;
    }

    public static string Upper(string text) { return text.ToUpper(); }
}

// Of this one, those who touch the list that others fill.
static class CallQueue  // entity: static-holder CallQueue eager language  // finding: coupling.wide-reach
{
    private static readonly List<string> names = new List<string>();

    public static void Put(string name) { lock (names) { names.Add(name); } }
    public static int Count() { lock (names) { return names.Count; } }
    public static void Clear() { lock (names) { names.Clear(); } }
    public static string Title() { return "queue"; }
}

class TugDesk { public int Go() { CallQueue.Put("tug"); return PortTexts.Bytes("a").Length; } }
class LockDesk { public int Go() { CallQueue.Put("lock"); return PortTexts.Wide() ? 1 : 2; } }
class CraneDesk { public int Go() { CallQueue.Clear(); return PortTexts.Sign().Length; } }
class FerryDesk { public int Go() { return CallQueue.Count() + PortTexts.Bytes("b").Length; } }
class BuoyDesk { public int Go() { CallQueue.Put("buoy"); return PortTexts.Upper("c").Length + PortTexts.Sign().Length; } }
class PierDesk { public string Go() { return CallQueue.Title() + PortTexts.Wide(); } }
