// Made by an engine, on its one thread: nobody can close its constructor, and no second thread makes another.
using UnityEngine;

namespace Harbour.Scene
{
    public class Turns
    {
        public int Taken;
    }

    public class Signals : MonoBehaviour  // entity: singleton Signals lazy none // near: single.open-constructor
    {
        static Signals instance;
        Turns turns;

        public static Signals Instance
        {
            get
            {
                if (instance == null)
                {
                    instance = new GameObject("Signals").AddComponent<Signals>();  // near: thread.unguarded-creation
                }
                return instance;
            }
        }

        public void Turn()
        {
            if (turns == null) turns = new Turns();  // near: thread.unguarded-creation
            turns.Taken++;
        }

        class Gate
        {
            readonly object key = new object();
            int open;

            public void Open()
            {
                lock (key)
                {
                    open++;
                }
            }
        }
    }
}
