<?php
class TideFile
{
    private string $path;
    public function __construct(string $path) { $this->path = $path; }
    public function read(): string { return file_get_contents($this->path); }
}

class Desk
{
    private TideFile $tides;
    private string $port;

    public function __construct(string $port)
    {
        $this->port = $port;
        $this->tides = new TideFile($port . '.txt');
    }

    public function height(): int { return strlen($this->tides->read()); }
}

if (realpath($argv[0]) === __FILE__) {
    file_put_contents('north.txt', 'four');
    echo (new Desk('north'))->height(), "\n";
}
