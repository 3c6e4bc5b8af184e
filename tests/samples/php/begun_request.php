<?php
// Made by the constructor, and replaced by a setter: a test can pass its own.
class Register
{
    public function load()
    {
        return fopen('register.txt', 'r');
    }
}

class Porter
{
    private $register;

    public function __construct()
    {
        $this->register = new Register();  // near: coupling.fixed-collaborator
    }

    public function setRegister(Register $register)
    {
        $this->register = $register;
    }

    public function open()
    {
        return $this->register->load();
    }
}

/**
 * All piers. A pier exists as exactly one instance.
 */
class PierBook  // near: single.meant-single
{
    public $piers = [];
}

/**
 * Because there is one request for each run it can operate as a singleton.
 */
class Call  // near: single.meant-single
{
    public $text = '';
}
