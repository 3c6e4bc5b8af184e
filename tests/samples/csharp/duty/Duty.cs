namespace Duty;

// Who is listed is told of each signal.
public interface IKeeper
{
    void Heard(int signal);
}
