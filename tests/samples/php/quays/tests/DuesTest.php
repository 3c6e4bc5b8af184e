<?php
namespace Quays\Tests;
