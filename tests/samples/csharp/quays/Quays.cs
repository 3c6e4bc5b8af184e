namespace Quays;
