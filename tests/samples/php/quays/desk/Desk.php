<?php
namespace Quays\Desks;

use Quays\Ledgers\HarbourDues;
